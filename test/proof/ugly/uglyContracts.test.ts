import ts from "typescript";
import { describe, expect, it } from "vitest";
import { language as javascript } from "../../../src/core/languages/javascript/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { printTypescriptSdk } from "../../support/typescriptSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { programOf, virtualFolder } from "../random/compile.js";
import { compilerComplaints, lintComplaints } from "../../support/compiler.js";
import { bundled } from "../../support/bundled.js";
import { runtime } from "../../support/readRest.js";
import { TemporaryProject } from "../../support/temporaryProject.js";
import { uglyCases, type UglyCase } from "./uglyContracts.js";

function read({ document, pages = {} }: UglyCase, name: string) {
  const { contract, problems } = readContract(name, [{ document: "api.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest") throw new Error(problems.map((each) => each.message).join("; "));
  const said = [
    ...problems.map(({ code, message }) => `${code} ${message}`),
    ...contract.setAside.map(({ what }) => `aside ${what}`),
  ];
  return { plan: planRest(contract, { pages }), said };
}

const everySetting = {
  dates: "decoded",
  int64: "bigint",
  choices: "open",
  failures: "return",
  verify: "answers",
  testing: true,
  cached: true,
} as const;
const facts = { runtime, scalars: new Map() } as const;

/** The errors of a text as JavaScript, such as types of TypeScript in it. */
function syntaxComplaints(path: string, text: string): string[] {
  const { diagnostics = [] } = ts.transpileModule(text, {
    fileName: path,
    reportDiagnostics: true,
    compilerOptions: { allowJs: true, target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext },
  });
  return diagnostics.map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, " "));
}

describe("a contract that", () => {
  it.each(uglyCases.map((each) => [each.does, each] as const))("%s", (_does, ugly) => {
    const { plan, said } = read(ugly, "case");
    const sdk = [...printTypescriptSdk({ name: "app", contracts: [plan] }, facts).values()].join("\n");
    for (const part of ugly.gives) expect(sdk).toContain(part);
    const expected = ugly.says ?? [];
    expect(said.filter((each) => !expected.some((start) => each.startsWith(start)))).toEqual([]);
    for (const start of expected) expect(said.filter((each) => each.startsWith(start)).length).toBeGreaterThan(0);
  });

  it.each([
    ["as they are", {}],
    ["with every setting turned", everySetting],
  ] as const)(`all ${String(uglyCases.length)} compile and lint in one SDK, %s`, (_how, settings) => {
    const contracts = uglyCases.map((each, at) => read(each, `case${String(at)}`).plan);
    const sdk = printTypescriptSdk({ name: "app", contracts }, { ...facts, settings });
    const files = new Map(
      [...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]),
    );
    const program = programOf(files);
    expect([...compilerComplaints(program, virtualFolder), ...lintComplaints(program, virtualFolder, files)]).toEqual(
      [],
    );
    expect(uglyCases.length).toBeGreaterThanOrEqual(60);
  });

  it("all have samples that compile", async () => {
    const contracts = uglyCases.map((each, at) => read(each, `case${String(at)}`).plan);
    const sdk = printTypescriptSdk({ name: "app", contracts }, { ...facts, settings: everySetting });
    const modules = [...sdk.keys()].filter((path) => path.endsWith("/testing.ts"));
    const project = new TemporaryProject(Object.fromEntries([...sdk].map(([path, text]) => [`sdk/${path}`, text])));
    project.write("all.ts", modules.map((path, at) => `export * as m${String(at)} from "./sdk/${path}";`).join("\n"));
    const all = await bundled<Record<string, Record<string, unknown>>>(project, "all.ts");
    const made = Object.values(all).flatMap((each) =>
      Object.entries(each).flatMap(([name, builder]) =>
        // A call that lacks a field cannot be made without it.
        typeof builder === "function" && name.startsWith("sample") && builder.length === 0
          ? [(builder as () => unknown)()]
          : [],
      ),
    );
    expect(made.length).toBeGreaterThan(100);
    for (const each of made) expect(each).toBeTypeOf("object");
  });

  it.each([
    ["as they are", {}],
    ["with every setting turned", everySetting],
  ] as const)("all give JavaScript with type declarations, %s", (_how, settings) => {
    const contracts = uglyCases.map((each, at) => read(each, `case${String(at)}`).plan);
    const sdk = printSdk(javascript, { name: "app", contracts }, { ...facts, settings });
    const declarations = [...sdk].filter(([path]) => path.endsWith(".d.ts"));
    const scripts = [...sdk].filter(([path]) => path.endsWith(".js"));
    const program = programOf(new Map(declarations.map(([path, text]) => [`sdk/${path}`, text])));
    expect(compilerComplaints(program, virtualFolder)).toEqual([]);
    expect(scripts.map(([path]) => path.replace(/\.js$/, ".d.ts"))).toEqual(declarations.map(([path]) => path));
    for (const [path, text] of scripts) expect(syntaxComplaints(path, text)).toEqual([]);
  });
});
