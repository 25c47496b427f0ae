import type { LoweredContract, LoweredSdk } from "../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { Printing } from "../language.js";
import { contractContext, type ContractContext } from "./contractContext.js";
import { printFormats } from "./types/formats.js";
import { header, moduleText } from "./moduleText.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { pageSpelling } from "./pageSpelling.js";
import { printCommonFiles } from "./printCommonFiles.js";
import { printGraphqlFolder } from "./printGraphqlFolder.js";
import { printReadme } from "./printReadme.js";
import { printRestFolder } from "./printRestFolder.js";
import { printRuntime } from "./runtimeFiles.js";
import type { TypescriptSettings } from "./settings.js";

/**
 * Prints an SDK as TypeScript.
 *
 * @returns the text of every file, by its path inside the SDK's folder
 */
export function printTypescriptSdk(sdk: LoweredSdk, printing: Printing, settings: Settings): Map<string, string> {
  const ending = settings.imports === "bare" ? "" : ".js";
  const files = new Map<string, string>();
  const contexts = sdk.contracts.map((contract) => contextOf(contract, printing, settings));
  for (const context of contexts)
    for (const [path, text] of printFolder(context, printing, settings))
      files.set(`${context.contract.plan.name}/${path}`, text);
  const formats = printFormats(settings.formats ?? {}, `./wire/index${ending}`);
  if (formats !== "") files.set("formats.ts", `${header}\n\n${formats}`);
  for (const [path, text] of printRuntime(printing.runtime, ending)) files.set(path, text);
  files.set("README.md", printReadme(sdk.name, contexts));
  return new Map(sortedBy(files, ([path]) => path));
}

type Settings = TypescriptSettings & { readonly isTranspiled?: boolean };

function contextOf(
  contract: LoweredContract,
  { scalars }: Pick<Printing, "scalars">,
  { imports, isTranspiled }: Settings,
): ContractContext {
  return contractContext(contract, scalars.get(contract.plan.name) ?? new Map<string, string>(), {
    ending: imports === "bare" ? "" : ".js",
    isTranspiled: isTranspiled === true,
  });
}

/** Returns how TypeScript or JavaScript spells the calls of a contract in documentation. */
export function typescriptSpelling(
  contract: LoweredContract,
  printing: Pick<Printing, "scalars">,
  settings: Settings,
): PageSpelling {
  return pageSpelling(contextOf(contract, printing, settings));
}

/** Prints the files of one contract. */
function printFolder(
  { contract, ...context }: ContractContext,
  { hash, schemas }: Printing,
  settings: TypescriptSettings,
): Map<string, string> {
  const schema = schemas?.get(contract.plan.name);
  const { files, grouped } =
    contract.protocol === "rest"
      ? printRestFolder({ ...context, contract })
      : printGraphqlFolder({ ...context, contract }, { settings, hash, schema });
  for (const [path, text] of printCommonFiles({ ...context, contract }, grouped)) files.set(path, text);
  return files.set("index.ts", indexModule(files.keys(), context.ending));
}

/** The modules that an app must import by their own path. */
const notInIndex: ReadonlySet<string> = new Set([
  "grouped.ts",
  "cached.ts",
  "testing.ts",
  "checks.ts",
  "conversions.ts",
]);
const onlyTypes: ReadonlySet<string> = new Set(["fragments.ts", "shapes.ts", "webhooks.ts"]);

function indexModule(paths: Iterable<string>, ending: "" | ".js"): string {
  const modules = [...paths].filter((path) => path.endsWith(".ts") && !notInIndex.has(path)).sort();
  const lines = modules.map(
    (path) => `export ${onlyTypes.has(path) ? "type " : ""}* from "./${path.replace(/\.ts$/, "")}${ending}";`,
  );
  return moduleText(header, [], [lines.join("\n")]);
}
