import type { Data } from "../text/parseData.js";

/** What a schema speaks about, as bits. */
export const speaksOf = {
  /** Other schemas it is composed of. */
  composition: 1,
  /** Something no type can say. */
  untypable: 2,
  /** Null, in the dresses that stand beside a type. */
  null: 4,
  /** The values it allows. */
  values: 8,
  /** Fields. */
  record: 16,
  /** Items. */
  list: 32,
  /** Ranges, lengths and patterns. */
  limits: 64,
  /** Words, examples, deprecation. */
  annotations: 128,
  /** What a field of it does besides: which way it goes, and its default. */
  field: 256,
} as const;

const keywords: Readonly<Record<keyof typeof speaksOf, readonly string[]>> = {
  composition: ["$ref", "allOf", "oneOf", "anyOf"],
  untypable: ["not", "if", "dependentRequired", "dependentSchemas", "dependencies", "contains", "propertyNames"],
  null: ["nullable", "x-nullable"],
  values: ["const", "enum"],
  record: [
    "properties",
    "additionalProperties",
    "patternProperties",
    "unevaluatedProperties",
    "minProperties",
    "maxProperties",
  ],
  list: ["items", "prefixItems"],
  limits: [
    "minLength",
    "maxLength",
    "pattern",
    "minimum",
    "maximum",
    "exclusiveMinimum",
    "exclusiveMaximum",
    "multipleOf",
    "minItems",
    "maxItems",
    "uniqueItems",
  ],
  annotations: ["description", "title", "example", "examples", "deprecated"],
  field: ["readOnly", "writeOnly", "default"],
};

const bitByKeyword = new Map(
  Object.entries(keywords).flatMap(([topic, keys]) =>
    keys.map((key) => [key, speaksOf[topic as keyof typeof speaksOf]] as const),
  ),
);

/** The keywords of one topic. */
export function keywordsOf(topic: keyof typeof speaksOf): readonly string[] {
  return keywords[topic];
}

/** All that a schema speaks about, found in one look at its keys: most schemas have two, and there are fifty to ask for. */
export function topicsOf(schema: Data): number {
  let found = 0;
  for (const key in schema) found |= bitByKeyword.get(key) ?? 0;
  return found;
}
