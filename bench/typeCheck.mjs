// Compares checking the SDK of the large contract with checking hand-written declarations of the same types. Usage:
// node bench/typeCheck.mjs
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import ts from "typescript";
import { makeContract } from "./makeContract.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const work = mkdtempSync(join(tmpdir(), "rhema-check-"));
const contract = makeContract(1200, 1000, 6);

function typeText(schema) {
  if (schema.$ref) return schema.$ref.split("/").pop();
  if (schema.enum) return schema.enum.map((each) => JSON.stringify(each)).join(" | ");
  const types = [schema.type].flat();
  const text = {
    string: "string",
    integer: "number",
    number: "number",
    boolean: "boolean",
    array: () => `(${typeText(schema.items)})[]`,
    object: () =>
      schema.properties
        ? `{ ${Object.entries(schema.properties)
            .map(([name, each]) => `${name}?: ${typeText(each)}`)
            .join("; ")} }`
        : `Record<string, ${typeText(schema.additionalProperties)}>`,
    null: "null",
  };
  return types.map((type) => (typeof text[type] === "function" ? text[type]() : text[type])).join(" | ");
}

/** The types and calls of the contract as a developer would declare them. */
function handWritten() {
  const types = Object.entries(contract.components.schemas).map(([name, { properties, required }]) => {
    const fields = Object.entries(properties).map(
      ([field, each]) => `  ${field}${required.includes(field) ? "" : "?"}: ${typeText(each)};\n`,
    );
    return `/** ${contract.components.schemas[name].description} */\nexport interface ${name} {\n${fields.join("")}}\n`;
  });
  const calls = Object.values(contract.paths).flatMap((item) =>
    Object.values(item).map(({ operationId, requestBody, responses, summary, description }) => {
      const body = requestBody ? `body: ${typeText(requestBody.content["application/json"].schema)}; ` : "";
      const answer = typeText(responses[200].content["application/json"].schema);
      return `/**\n * ${summary}\n *\n * ${description}\n */\nexport declare function ${operationId}(args: { id: string; limit?: number; filter?: string[]; ${body}}): Promise<${answer}>;\n`;
    }),
  );
  return [...types, ...calls].join("\n");
}

function filesBelow(folder) {
  return readdirSync(folder, { recursive: true })
    .filter((name) => name.endsWith(".ts"))
    .map((name) => join(folder, name));
}

/** Declarations of the platform, parsed once, because they are the same for all. */
const platform = new Map();

function secondsToCheck(files) {
  const options = {
    target: ts.ScriptTarget.ES2022,
    module: ts.ModuleKind.NodeNext,
    moduleResolution: ts.ModuleResolutionKind.NodeNext,
    types: [],
    strict: true,
    exactOptionalPropertyTypes: true,
    noEmit: true,
  };
  const times = [1, 2, 3, 4, 5].map(() => {
    const host = ts.createCompilerHost(options);
    const read = host.getSourceFile.bind(host);
    host.getSourceFile = (name, settings) => {
      if (!name.includes("/typescript/lib/")) return read(name, settings);
      if (!platform.has(name)) platform.set(name, read(name, settings));
      return platform.get(name);
    };
    const startedAt = performance.now();
    const found = ts.getPreEmitDiagnostics(ts.createProgram(files, options, host));
    if (found.length > 0) throw new Error(ts.flattenDiagnosticMessageText(found[0].messageText, "\n"));
    return (performance.now() - startedAt) / 1000;
  });
  return times.sort((a, b) => a - b)[2];
}

mkdirSync(join(work, "hand"));
writeFileSync(join(work, "package.json"), '{ "type": "module" }');
writeFileSync(join(work, "hand/declared.ts"), handWritten());
writeFileSync(join(work, "api.json"), JSON.stringify(contract));
writeFileSync(
  join(work, "rhema.yaml"),
  "contracts: { api: { from: api.json } }\nsdks: { app: { language: typescript, covers: [api], into: src/sdk } }\n",
);
const { status, stderr } = spawnSync(process.execPath, [join(root, "dist/cli/main.js"), "generate"], {
  cwd: work,
  encoding: "utf8",
});
if (status !== 0) throw new Error(stderr);
writeFileSync(join(work, "hand/empty.ts"), "export {};\n");
secondsToCheck([join(work, "hand/empty.ts")]);
const nothing = secondsToCheck([join(work, "hand/empty.ts")]);
const hand = secondsToCheck([join(work, "hand/declared.ts")]);
const shapes = secondsToCheck([join(work, "src/sdk/api/shapes.ts")]);
const whole = secondsToCheck(filesBelow(join(work, "src/sdk")));
console.log(`nothing but the platform           ${nothing.toFixed(2)} s`);
console.log(`declarations written by hand       ${hand.toFixed(2)} s  (types and calls)`);
console.log(
  `shapes.ts of the SDK               ${shapes.toFixed(2)} s  ${((shapes - nothing) / (hand - nothing)).toFixed(2)} times by hand, without the platform`,
);
console.log(
  `the whole SDK, calls with bodies   ${whole.toFixed(2)} s  ${((whole - nothing) / (hand - nothing)).toFixed(2)} times`,
);
rmSync(work, { recursive: true, force: true });
