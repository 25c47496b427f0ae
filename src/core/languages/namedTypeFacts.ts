import type { Shape } from "../contract/model.js";
import type { SdkFacts } from "../change/sdkFacts.js";
import { decodedLeaf } from "../sdk/lower/values/decodedLeaf.js";
import type { SharedSettings } from "../sdk/lower/sharedSettings.js";
import type { FactsScope } from "./language.js";
import { settingFacts } from "./settingFacts.js";

/** The app's own types by format, as in the settings. */
interface FormatTypes {
  readonly formats?: Readonly<Record<string, { readonly type: string }>>;
}

/** The facts that differ between such languages. */
export interface NamedTypes extends Pick<SdkFacts, "typeName" | "names" | "takesRecordsApart" | "refusesUnwrapping"> {
  /** Returns the type of a value without parts; undefined if it has several types or may be anything. */
  readonly leafType: (shape: Shape) => string | undefined;
  /** The type of a decoded date-time, and of a value of any type. */
  readonly instant: string;
  readonly json: string;
}

/**
 * Returns the facts for languages that distinguish types by name.
 *
 * @param settings the SDK's settings
 */
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
