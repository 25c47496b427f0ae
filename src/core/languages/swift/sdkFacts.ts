import type { SdkFacts } from "../../change/sdkFacts.js";
import { decodedLeaf } from "../../sdk/lower/decodedLeaf.js";
import type { SharedSettings } from "../../sdk/lower/sharedSettings.js";
import type { FactsScope } from "../language.js";
import { settingFacts } from "../settingFacts.js";
import { typeIdentifier } from "./identifiers.js";
import { leafType } from "./leafType.js";
import { contractNaming } from "./names.js";
import type { SwiftSettings } from "./settings.js";

/** What Swift and the settings of an SDK make of a change. */
export function swiftFacts(settings: SharedSettings, { rest, scalars, settings: own }: FactsScope): SdkFacts {
  const { formats } = own as SwiftSettings;
  return {
    leafType: (shape) => {
      const leaf = decodedLeaf(shape, settings);
      if (leaf?.kind === "instant") return "Date";
      if (leaf?.kind === "own") return formats?.[leaf.format]?.type ?? "String";
      if (shape.kind === "any") return (shape.scalar !== undefined && scalars.get(shape.scalar)) || "JSON";
      return leafType(shape) ?? shape.kind;
    },
    typeName: typeIdentifier,
    memberName: (name) => name,
    names: contractNaming,
    ...settingFacts(settings),
    knowsTypesByName: true,
    unsaidTakesAll: false,
    choicesArePlain: false,
    readsWhole: true,
    opensAllUnions: settings.unions === "open",
    suppliesBaseUrl: false,
    tellsAbsentFromNull: false,
    matchesAllMembers: true,
    takesArgumentsByPlace: false,
    takesRecordsApart: false,
    rest,
  };
}
