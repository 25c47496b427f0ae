import type { Language } from "../language.js";
import { settledSettings } from "../settings.js";
import { description } from "./description.js";
import { packageSegment } from "./names/identifiers.js";
import { contractNaming, ownNames } from "./names/names.js";
import type { KotlinSettings } from "./settings.js";
import { kotlinSpelling, printKotlinSdk } from "./printKotlinSdk.js";
import { runtimeFiles } from "./runtimeFiles.js";
import { kotlinFacts } from "./sdkFacts.js";
import { camelCase } from "../../text/words.js";

/** Kotlin, behind the interface of all languages. */
export const language: Language = {
  ...description,
  facts: (scope) => kotlinFacts(settledSettings(description.settings, scope.settings), scope),
  contractNames: (contract) => ({ connect: ownNames(contract).connection }),
  folder: (contract, settings: KotlinSettings) =>
    `${settings.package === true ? "src/main/kotlin/" : ""}${packageSegment(contract)}`,
  names: contractNaming,
  operationNames: (operation) => [camelCase(operation), operation, `${operation}Failure`],
  print: (sdk, printing) => printKotlinSdk(sdk, printing, printing.settings),
  spelling: (contract, printing) => kotlinSpelling(contract, printing, printing.settings),
  runtime: runtimeFiles,
  exports: (files, contract) =>
    [...files].flatMap(([path, text]) =>
      path.replace(sourceFolder, "").startsWith(`${packageSegment(contract)}/`)
        ? [...text.matchAll(exported)].map(([, type = "", call = ""]) => type || call)
        : [],
    ),
};

/** The source folder of an SDK that is a module of its own. */
const sourceFolder = /^src\/main\/kotlin\//;

const exported =
  /^public (?:(?:data |sealed |enum |value )*(?:class|interface|object)|typealias) `?([\p{L}\p{Nd}_]+)|^public (?:suspend )?fun \w+\.`?([\p{L}\p{Nd}_]+)/gmu;
