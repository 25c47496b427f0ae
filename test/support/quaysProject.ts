import { mkdirSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import { TemporaryProject } from "./temporaryProject.js";

export const text = { type: "string" };

/** A contract of one list, whose items have these fields. */
export function quaysContract(fields: object, needed: readonly string[] = Object.keys(fields)): string {
  const quay = { type: "object", required: needed, properties: fields };
  return JSON.stringify({
    openapi: "3.1.0",
    info: { title: "Quays", version: "1" },
    paths: {
      "/quays": {
        get: {
          operationId: "listQuays",
          responses: {
            200: {
              description: "All.",
              content: {
                "application/json": { schema: { type: "array", items: { $ref: "#/components/schemas/Quay" } } },
              },
            },
          },
        },
      },
    },
    components: { schemas: { Quay: quay } },
  });
}

/** A project with it, and with packages that are installed here: "vue", "typescript-7 as typescript". */
export function quaysProject(files: Record<string, string>, packages: readonly string[]): TemporaryProject {
  const project = new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "tsconfig.json": JSON.stringify({
      compilerOptions: { strict: true, target: "ES2022", module: "ESNext", moduleResolution: "Bundler", noEmit: true },
      include: ["src"],
    }),
    "quays.json": quaysContract({ id: text, name: text, note: text }),
    "rhema.yaml":
      "contracts: { quays: { from: quays.json } }\nsdks: { app: { language: typescript, covers: [quays], into: src/sdk } }\n",
    "src/quays.ts":
      'import { connectQuays, listQuays } from "./sdk/quays/index.js";\nexport const load = () => listQuays(connectQuays({ baseUrl: "/" }));\n',
    ...files,
  });
  mkdirSync(project.path("node_modules"));
  for (const name of packages) {
    const [installed = "", as = installed] = name.split(" as ");
    symlinkSync(resolve("node_modules", installed), project.path(`node_modules/${as}`));
  }
  return project;
}
