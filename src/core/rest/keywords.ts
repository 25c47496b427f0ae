import type { Data } from "../text/parseData.js";

/** The topics of a schema's keywords, as bits. */
export const speaksOf = {
  /** Other schemas it is composed of. */
  composition: 1,
  /** Restrictions that types cannot express. */
  untypable: 2,
  /** Null, in the ways that stand next to a type. */
  null: 4,
  /** The allowed values. */
  values: 8,
  /** Fields. */
  record: 16,
  /** Items. */
  list: 32,
  /** Ranges, lengths and patterns. */
  limits: 64,
  /** Descriptions, examples, deprecation. */
  annotations: 128,
  /** Facts about it as a field: its direction and its default. */
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

/** Returns the keywords of one topic. */
export function keywordsOf(topic: keyof typeof speaksOf): readonly string[] {
  return keywords[topic];
}

/**
 * Returns all topics of a schema as bits, with one look at its keys. Most schemas have two keys, and there are fifty
 * keywords to ask for.
 */
export function topicsOf(schema: Data): number {
  let found = 0;
  for (const key in schema) found |= bitByKeyword.get(key) ?? 0;
  return found;
}
