import type { Shape } from "../../contract/model.js";
import type { SdkFacts } from "../../change/sdkFacts.js";
import type { SharedSettings } from "../../sdk/lower/sharedSettings.js";
import type { FactsScope } from "../language.js";
import { settingFacts } from "../settingFacts.js";
import { decodedType } from "./types/formats.js";
import { typeIdentifier } from "./names/identifiers.js";
import { contractNaming } from "./names/contractNaming.js";

/** Returns the facts that decide how a change affects TypeScript source, for the settings of an SDK. */
export function typescriptFacts(settings: SharedSettings, { rest, scalars }: FactsScope): SdkFacts {
  return {
    leafType: (shape) => decodedType(shape, settings) ?? plainType(shape, scalars),
    typeName: typeIdentifier,
    memberName: (name) => name,
    names: contractNaming,
    ...settingFacts(settings),
    knowsTypesByName: false,
    unsaidTakesAll: true,
    choicesArePlain: true,
    readsWhole: settings.verify === "answers",
    opensAllUnions: false,
    suppliesBaseUrl: false,
    tellsAbsentFromNull: true,
    matchesAllMembers: false,
    takesArgumentsByPlace: false,
    takesRecordsApart: false,
    refusesUnwrapping: false,
    rest,
  };
}

function plainType(shape: Shape, scalars: ReadonlyMap<string, string>): string {
  switch (shape.kind) {
    case "text":
      return "string";
    case "integer":
    case "number":
      return "number";
    case "any":
      return (shape.scalar !== undefined && scalars.get(shape.scalar)) || "unknown";
    default:
      return shape.kind;
  }
}
