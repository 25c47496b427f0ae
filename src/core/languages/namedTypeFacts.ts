import type { Shape } from "../contract/model.js";
import type { SdkFacts } from "../change/sdkFacts.js";
import { decodedLeaf } from "../sdk/lower/values/decodedLeaf.js";
import type { SharedSettings } from "../sdk/lower/sharedSettings.js";
import type { FactsScope } from "./language.js";
import { settingFacts } from "./settingFacts.js";

/** Types of the app's own by format, as settings name them. */
interface FormatTypes {
  readonly formats?: Readonly<Record<string, { readonly type: string }>>;
}

/** What such languages have each in its own way. */
export interface NamedTypes extends Pick<SdkFacts, "typeName" | "names" | "takesRecordsApart" | "refusesUnwrapping"> {
  /** The type of a value without parts; undefined where it has several or may be anything. */
  readonly leafType: (shape: Shape) => string | undefined;
  /** The type of an instant that is decoded, and that of what may be anything. */
  readonly instant: string;
  readonly json: string;
}

/** What languages whose types are told apart by their names, and the settings of an SDK, make of a change. */
export function namedTypeFacts(
  settings: SharedSettings,
  { rest, scalars, settings: own }: FactsScope,
  { leafType, instant, json, ...facts }: NamedTypes,
): SdkFacts {
  const { formats } = own as FormatTypes;
  return {
    leafType: (shape) => {
      const leaf = decodedLeaf(shape, settings);
      if (leaf?.kind === "instant") return instant;
      if (leaf?.kind === "own") return formats?.[leaf.format]?.type ?? "String";
      if (shape.kind === "any") return (shape.scalar !== undefined && scalars.get(shape.scalar)) || json;
      return leafType(shape) ?? shape.kind;
    },
    memberName: (name) => name,
    ...facts,
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
    rest,
  };
}
