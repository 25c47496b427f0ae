import { camelCase } from "../../text/words.js";
import type { Language } from "../language.js";
import { settledSettings } from "../settings.js";
import { description } from "./description.js";
import { contractNaming, ownNames } from "./names/names.js";
import { printSwiftSdk, swiftSpelling } from "./printSwiftSdk.js";
import { runtimeFiles } from "./runtimeFiles.js";
import { swiftFacts } from "./sdkFacts.js";
import type { SwiftSettings } from "./settings.js";

/** Swift, behind the interface of all languages. */
export const language: Language = {
  ...description,
  facts: (scope) => swiftFacts(settledSettings(description.settings, scope.settings), scope),
  contractNames: (contract) => ({ connect: ownNames(contract).connection }),
  folder: (contract, { prefix = "", package: isPackage }: SwiftSettings) =>
    `${isPackage === true ? "Sources/" : ""}${prefix}${ownNames(contract).namespace}`,
  names: contractNaming,
  operationNames: (operation) => [camelCase(operation), operation, `${operation}Failure`],
  print: (sdk, printing) => printSwiftSdk(sdk, printing, printing.settings),
  spelling: (contract, printing) => swiftSpelling(contract, printing, printing.settings),
  runtime: runtimeFiles,
  exports: (files, contract) => {
    const folder = `${ownNames(contract).namespace}/`;
    return [...files].flatMap(([path, text]) =>
      path.includes(folder) ? [...text.matchAll(exported)].map(([, name = ""]) => name) : [],
    );
  },
};

const exported = /^ *(?:public )?(?:indirect )?(?:struct|enum|typealias|func) `?([\p{L}\p{Nd}_]+)/gmu;
