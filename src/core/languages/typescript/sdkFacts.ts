import type { Shape } from "../../contract/model.js";
import type { SdkFacts } from "../../change/sdkFacts.js";
import type { RestSettings } from "../../sdk/planRest.js";
import { typeIdentifier, valueIdentifier } from "./identifiers.js";
import { convertedLeaf, formatsOf } from "./formats.js";
import type { TypescriptSettings } from "./settings.js";

/**
 * What TypeScript and the settings of an SDK make of a change.
 *
 * @param scalars the TypeScript type of each GraphQL scalar that the configuration maps
 */
export function typescriptSdkFacts(
  settings: TypescriptSettings = {},
  rest: RestSettings = {},
  scalars: ReadonlyMap<string, string> = new Map(),
): SdkFacts {
  const formats = formatsOf(settings);
  return {
    leafType: (shape) => convertedLeaf(shape, formats)?.type ?? plainType(shape, scalars),
    typeName: typeIdentifier,
    valueName: valueIdentifier,
    decodes: (shape) => convertedLeaf(shape, formats) !== undefined,
    openChoices: formats.openChoices,
    openUnions: settings.unions === "open",
    verifies: settings.verify === "answers",
    suppliesBaseUrl: false,
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
