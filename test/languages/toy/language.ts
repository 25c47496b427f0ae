import type { SdkFacts } from "../../../src/core/change/sdkFacts.js";
import type { FactsScope, Language, Printing } from "../../../src/core/languages/language.js";
import { callList } from "../../../src/core/languages/pages/callList.js";
import { restPage } from "../../../src/core/languages/pages/callPages.js";
import type { PageSpelling } from "../../../src/core/languages/pages/pageSpelling.js";
import { settingFacts } from "../../../src/core/languages/settingFacts.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import type { Feature } from "../../../src/core/sdk/lower/features.js";
import type { LoweredContract, LoweredSdk } from "../../../src/core/sdk/lower/loweredSdk.js";
import { description } from "./description.js";
import { toyName, toyNames } from "./names.js";
import { printCall, printGraphqlCall } from "./printCalls.js";
import { printTypes } from "./printTypes.js";
import { toyType, type ToySpelling } from "./spelling.js";

/** A language that is printed and never run: the minimum of a new language. */
export const language: Language = {
  ...description,
  facts,
  folder: (contract) => contract,
  contractNames: (contract) => ({ connect: `open_${toyName(contract)}` }),
  names: toyNames,
  operationNames: (operation) => [toyName(operation)],
  print,
  runtime: (features: ReadonlySet<Feature>) => (features.has("pages") ? ["pages.toy", "wire.toy"] : ["wire.toy"]),
  exports: (files, contract) =>
    [...files].flatMap(([path, text]) =>
      path.startsWith(`${contract}/`) && path.endsWith(".toy")
        ? [...text.matchAll(/^(?:call|record|choice|union|type) (\w+)/gm)].map(([, name = ""]) => name)
        : [],
    ),
};

function facts({ settings, rest }: FactsScope): SdkFacts {
  const shared = settledSettings(description.settings, settings);
  return {
    leafType: (shape) => (shape.kind === "integer" ? "whole" : shape.kind === "number" ? "decimal" : shape.kind),
    typeName: toyName,
    memberName: toyName,
    names: toyNames,
    ...settingFacts(shared),
    knowsTypesByName: false,
    unsaidTakesAll: true,
    choicesArePlain: true,
    readsWhole: false,
    opensAllUnions: false,
    suppliesBaseUrl: false,
    tellsAbsentFromNull: false,
    matchesAllMembers: true,
    takesArgumentsByPlace: true,
    takesRecordsApart: true,
    refusesUnwrapping: false,
    rest,
  };
}

function print(sdk: LoweredSdk, { runtime, scalars }: Printing): Map<string, string> {
  const files = new Map<string, string>();
  for (const contract of sdk.contracts) {
    const own = scalars.get(contract.plan.name) ?? new Map<string, string>();
    for (const [path, text] of printContract(contract, own)) files.set(`${contract.plan.name}/${path}`, text);
  }
  for (const [file, text] of runtime) files.set(`wire/${file}`, text);
  return files.set(
    "README.md",
    `# ${sdk.name}\n\n${sdk.contracts.flatMap((contract) => callList(contract, pageSpelling(contract))).join("\n")}`,
  );
}

function printContract(contract: LoweredContract, scalars: ReadonlyMap<string, string>): Map<string, string> {
  const names = toyNames(contract.plan);
  const spelling: ToySpelling = { contract, types: names.types, scalars };
  const files = new Map([["types.toy", printTypes(spelling)]]);
  if (contract.protocol === "graphql") {
    for (const call of contract.calls) files.set(`calls/${call.file}.toy`, printGraphqlCall(call, names, spelling));
    return files;
  }
  for (const file of contract.files) {
    files.set(`calls/${file.file}.toy`, file.calls.map((call) => printCall(call, names, spelling)).join("\n"));
    files.set(`calls/${file.file}.md`, restPage(file, contract, pageSpelling(contract)));
  }
  return files;
}

function pageSpelling(contract: LoweredContract): PageSpelling {
  const names = toyNames(contract.plan);
  const spelling: ToySpelling = { contract, types: names.types, scalars: new Map() };
  const type: PageSpelling["type"] = (reference) => toyType(reference, spelling);
  const callName: PageSpelling["callName"] = ({ call }) => names.call(call).call;
  return {
    fence: "text",
    callName,
    pagesName: ({ call }) => names.call(call).pages ?? "",
    argumentName: names.argument,
    type,
    answerType: ({ call }) =>
      call.answers.map((answer) => (answer.type ? type(answer.type, "got") : "nothing")).join(" or "),
    page: ({ plan }, file) => `${plan.name}/calls/${file}.md`,
    otherAnswers: { title: "In other forms", row: (_lowered, mediaType) => mediaType },
    otherBody: (_lowered, { mediaType }) => mediaType,
    sample: (lowered) => `${callName(lowered)}()`,
  };
}
