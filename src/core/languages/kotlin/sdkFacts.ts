import type { SdkFacts } from "../../change/sdkFacts.js";
import type { Shape } from "../../contract/model.js";
import { decodedLeaf } from "../../sdk/lower/decodedLeaf.js";
import type { SharedSettings } from "../../sdk/lower/sharedSettings.js";
import type { FactsScope } from "../language.js";
import { typeIdentifier } from "./identifiers.js";
import { contractNaming } from "./names.js";
import type { KotlinSettings } from "./settings.js";

/** What Kotlin and the settings of an SDK make of a change. */
export function kotlinFacts(settings: SharedSettings, { rest, scalars, settings: own }: FactsScope): SdkFacts {
  const { formats } = own as KotlinSettings;
  return {
    leafType: (shape) => {
      const leaf = decodedLeaf(shape, settings);
      if (leaf?.kind === "instant") return "Instant";
      if (leaf?.kind === "own") return formats?.[leaf.format]?.type ?? "String";
      return plainType(shape, scalars);
    },
    typeName: typeIdentifier,
    memberName: (name) => name,
    names: contractNaming,
    decodes: (shape) => decodedLeaf(shape, settings) !== undefined,
    openChoices: settings.choices === "open",
    openUnions: settings.unions === "open",
    verifies: settings.verify === "answers",
    suppliesBaseUrl: false,
    tellsAbsentFromNull: false,
    matchesAllMembers: true,
    takesArgumentsByPlace: false,
    rest,
  };
}

function plainType(shape: Shape, scalars: ReadonlyMap<string, string>): string {
  switch (shape.kind) {
    case "text":
      return "String";
    case "integer":
      return shape.format === "int32" ? "Int" : "Long";
    case "number":
      return "Double";
    case "boolean":
      return "Boolean";
    case "any":
      return (shape.scalar !== undefined && scalars.get(shape.scalar)) || "JsonElement";
    default:
      return shape.kind;
  }
}
