import type { Language } from "../language.js";
import { settledSettings } from "../settings.js";
import { contractNaming, operationNames } from "./names/contractNaming.js";
import { contractNames } from "./names/identifiers.js";
import { description } from "./description.js";
import { printTypescriptSdk, typescriptSpelling } from "./printTypescriptSdk.js";
import { runtimeFiles } from "./runtimeFiles.js";
import { typescriptFacts } from "./sdkFacts.js";

/** TypeScript: ES modules without dependencies, one function for each call. */
export const language: Language = {
  ...description,
  facts: (scope) => typescriptFacts(settledSettings(description.settings, scope.settings), scope),
  contractNames,
  folder: (contract) => contract,
  operationNames,
  names: contractNaming,
  print: (sdk, printing) => printTypescriptSdk(sdk, printing, printing.settings),
  spelling: (contract, printing) => typescriptSpelling(contract, printing, printing.settings),
  runtime: runtimeFiles,
  exports: exportedNames,
};

/** The names that the modules of a contract's calls and types export. */
function exportedNames(files: ReadonlyMap<string, string>, contract: string): string[] {
  return [...files].flatMap(([path, text]) => {
    const isOwn = path.startsWith(`${contract}/calls/`) || path === `${contract}/shapes.ts`;
    if (!isOwn || !path.endsWith(".ts")) return [];
    return [...text.matchAll(/^export (?:async )?(?:const|function|interface|type) ([\w$]+)/gm)].map(
      ([, name = ""]) => name,
    );
  });
}
