import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { afterEach, describe, expect, it } from "vitest";
import { executingServer } from "../support/executingServer.js";
import { pseudoTerminal, runInTerminal } from "../support/pseudoTerminal.js";
import { packageRoot } from "../support/packageRoot.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const demoContract = (name: string): string => readFileSync(join(packageRoot, "demo/contracts/v1", name), "utf8");
const manifest =
  '{\n    "name": "@ostrel/quay-board",\n    "scripts": {\n        "dev": "serve",\n        "build": "tsc"\n    }\n}\n';
const berths = { "contracts/berths.yaml": demoContract("berths.yaml") };
const both = { ...berths, "contracts/passages.graphql": demoContract("passages.graphql") };

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

/** tsconfig.json and the files it refers to, as in the usual starting points of frameworks. */
const fresh = (lib: string, types: readonly string[] = []) => ({
  "tsconfig.json": '{ "files": [], "references": [{ "path": "./tsconfig.app.json" }] }',
  "tsconfig.app.json": JSON.stringify({
    compilerOptions: {
      target: lib,
      lib: [lib, "DOM", "DOM.Iterable"],
      module: "ESNext",
      moduleResolution: "bundler",
      types,
      allowImportingTsExtensions: true,
      verbatimModuleSyntax: true,
      moduleDetection: "force",
      noEmit: true,
      jsx: "react-jsx",
      strict: true,
      noUnusedLocals: true,
      noUnusedParameters: true,
      erasableSyntaxOnly: true,
      noFallthroughCasesInSwitch: true,
      noUncheckedSideEffectImports: true,
    },
    include: ["src"],
  }),
});

describe("init", () => {
  it.each([
    ["React", { "src/App.tsx": "export function App() { return null; }\n", ...fresh("ES2022") }, '"react": "^19.0.0"'],
    ["Vue", { "src/App.vue": "<template>board</template>\n", ...fresh("ES2020") }, '"vue": "^3.5.0"'],
  ])("creates a compiling SDK in a fresh %s project with two commands", async (_name, files, dependency) => {
    const project = new TemporaryProject({
      ...both,
      ...files,
      "package.json": manifest.replace('"scripts"', `"dependencies": { ${dependency} },\n    "scripts"`),
    });
    const { code, out } = await project.run(["init", "--yes"]);
    expect(code).toBe(0);
    expect(out).toContain("init: rhema.yaml written; next: rhema generate");
    expect(out).toContain("GraphQL: 11 root fields");
    const scripts = (JSON.parse(project.read("package.json")) as { scripts: object }).scripts;
    expect(scripts).toEqual({
      dev: "serve",
      build: "tsc",
      sdk: "rhema generate",
      predev: "rhema generate",
      prebuild: "rhema generate",
    });
    expect(project.read("package.json")).toMatch(/^ {8}"predev"/m);
    expect((await project.run(["generate"])).code).toBe(0);
    // Imports end as the configuration that the first one refers to requires.
    expect(project.read("src/sdk/berths/index.ts")).toContain('from "./connect"');
    expect((await project.run(["draft", "passages"])).code).toBe(0);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.exists("src/queries/voyages.graphql")).toBe(true);
    const options = JSON.parse(project.read("tsconfig.app.json")) as { compilerOptions: object };
    expect(project.compile(options.compilerOptions as Record<string, unknown>)).toBe("");
  });

  it("finds queries, names contracts by their files, and ignores files that are not contracts", async () => {
    const project = new TemporaryProject({
      "package.json": '{ "name": "board" }',
      "api/passages/schema.graphql": "type Query { voyage: String }\n",
      "api/passages/more.graphql": "type Voyage { id: ID }\n",
      "api/berths/openapi.json": JSON.stringify({
        openapi: "3.1.0",
        info: { title: "Berths", version: "1" },
        paths: {},
      }),
      "queries/voyage.graphql": "query Voyage { voyage }\n",
      "src/Board.tsx": "const board = gql`query Board { voyage }`;\n",
      "data/harbour.json": '{ "name": "Ostrel" }',
      "node_modules/x/openapi.yaml": "openapi: 3.1.0\n",
    });
    expect((await project.run(["init", "--yes"])).code).toBe(0);
    const text = project.read("rhema.yaml");
    expect(text).toContain("from: api/berths/openapi.json");
    expect(text).toContain("from: [api/passages/more.graphql, api/passages/schema.graphql]");
    expect(text).toContain('queries: ["queries/**/*.{graphql,gql}", "src/**/*.tsx"]');
    expect([...text.matchAll(/^ {2}([a-z-]+):/gm)].map(([, name]) => name)).toEqual(["berths", "passages", "board"]);
    expect((await project.run(["generate"])).code).toBe(0);
  });

  it("adopts a URL, a live GraphQL endpoint and a command, with a header from the environment", async () => {
    const { address: endpoint, close } = await executingServer("type Query { tide: Float }", {});
    const token = "b1946ac92492d2347c6235b4d2611184";
    const seen: (string | undefined)[] = [];
    const server = createServer((request, response) => {
      seen.push(request.headers.authorization);
      response.setHeader("content-type", "application/yaml").end(demoContract("berths.yaml"));
    });
    servers.push(server);
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    const address = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/docs/berths.yaml`;
    const project = new TemporaryProject({ "print.mjs": "console.log('type Query { crew: String }');\n" });
    const { code, out, err } = await project.run(
      [
        "init",
        "--from",
        address,
        "--from",
        `tides=${endpoint}`,
        "--run",
        "crews=node print.mjs",
        "--header",
        "authorization: Bearer ${HARBOUR_TOKEN}",
      ],
      { HARBOUR_TOKEN: token },
    );
    close();
    expect([code, err]).toEqual([0, ""]);
    expect(seen[0]).toBe(`Bearer ${token}`);
    expect(out).toContain("berths  REST 1.4.0: 15 operations");
    expect(project.read("rhema.yaml")).toContain('authorization: "Bearer ${HARBOUR_TOKEN}"');
    expect(Object.values(project.tree(".")).join("\n") + out).not.toContain(token);
    // From here on, work continues offline.
    expect((await project.run(["generate"], { HARBOUR_TOKEN: token })).code).toBe(0);
  });

  it("overwrites nothing, and reports errors before anything is written", async () => {
    const there = new TemporaryProject({ ...berths, "rhema.yaml": "mine\n" });
    expect(await there.run(["init", "--yes"])).toMatchObject({ code: 2 });
    expect(there.read("rhema.yaml")).toBe("mine\n");
    const project = new TemporaryProject({ "berths.yaml": "openapi: 3.1.0\ninfo: [\n" });
    for (const [args, code] of [
      [["init"], "init.nothing"],
      [["init", "--yes"], "contract.syntax"],
      [["init", "--from", "nowhere.yaml"], "contract.missing"],
      [["init", "--from", "http://127.0.0.1:9/api.json"], "contract.fetch"],
      [["init", "--run", "exit 3"], "contract.fetch"],
      [["init", "--yes", "--header", "secret"], "option.value"],
    ] as const) {
      const ran = await project.run(args);
      expect([ran.code === 0, ran.err.includes(code)]).toEqual([false, true]);
      expect(project.exists("rhema.yaml")).toBe(false);
    }
    const outside = new TemporaryProject({ ...berths, "package.json": manifest });
    expect((await outside.run(["init", "--yes", "--into", "../sdk"])).err).toContain("path.outside");
    expect([outside.exists("rhema.yaml"), outside.read("package.json")]).toEqual([false, manifest]);
    // Existing scripts stay as they are.
    const own = new TemporaryProject({
      ...berths,
      "package.json": manifest.replace('"tsc"', '"tsc", "prebuild": "mine"'),
    });
    expect((await own.run(["init", "--yes"])).out).toContain("unchanged: prebuild");
    expect(own.read("package.json")).toContain('"prebuild": "mine"');
    const plain = new TemporaryProject({ ...berths, "package.json": manifest });
    await plain.run(["init", "--yes", "--no-scripts"]);
    expect(plain.read("package.json")).toBe(manifest);
  });

  it.skipIf(pseudoTerminal === undefined)("asks only the remaining questions, on a terminal", async () => {
    const project = new TemporaryProject({ ...both, "package.json": manifest, "src/board.ts": "export {};\n" });
    const { code, out } = await runInTerminal(
      project.folder,
      ["init"],
      [
        { after: "Which contracts", keys: "j \r" },
        { after: "What is its name", keys: "moorings\r" },
        { after: "What is the output folder", keys: "src/harbour\r" },
        { after: "Add scripts", keys: "n" },
      ],
    );
    expect([code, out.includes("rhema.yaml written")]).toEqual([0, true]);
    expect(project.read("rhema.yaml")).toMatch(/moorings:[^]*covers: \[moorings\]/);
    expect(project.read("rhema.yaml")).toContain("into: src/harbour");
    expect(project.read("package.json")).toBe(manifest);
  });

  it.skipIf(pseudoTerminal === undefined)(
    "asks again if a contract cannot be read, and writes nothing if it is interrupted",
    async () => {
      const project = new TemporaryProject({ "package.json": manifest, "later.txt": demoContract("berths.yaml") });
      const asked = await runInTerminal(
        project.folder,
        ["init"],
        [
          { after: "Where is the contract", keys: "nowhere.yaml\r" },
          { after: "does not exist", keys: "" },
          { after: "Where is the contract", keys: "cat later.txt\r" },
          { after: "What is its name", keys: "\r" },
          { after: "What is the output folder", keys: "\r" },
          { after: "Add scripts", keys: "\r" },
        ],
      );
      expect([asked.code, asked.out.includes("script")]).toEqual([0, true]);
      expect(project.read("rhema.yaml")).toContain('from: { run: "cat later.txt" }');
      const ended = new TemporaryProject(both);
      const { code, out } = await runInTerminal(ended.folder, ["init"], [{ after: "Which contracts", keys: "\u0003" }]);
      expect([code, out.includes("Nothing was written"), ended.exists("rhema.yaml")]).toEqual([2, true, false]);
    },
  );
});
