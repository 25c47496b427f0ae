import type { Json } from "./makeSchema.js";
import type { Randomness } from "./randomness.js";

/** Stands for bytes in a sample. It is written as a Blob in code. */
export const bytesMark = "\u0000bytes";

export interface SampleContext {
  readonly random: Randomness;
  /** The raw contract, for references. */
  readonly document: Json;
  readonly direction: "answer" | "request";
  /** Whether it is in a form, where binary text is bytes. */
  readonly inForm: boolean;
}

class Endless extends Error {}
const deepest = 12;

/**
 * Returns a value that probably satisfies a raw schema. Ajv decides whether it does. The program's own model is not
 * used.
 *
 * @returns undefined if none was found
 */
export function sampleValue(schema: unknown, context: SampleContext): unknown {
  try {
    return sample(schema, context, 0);
  } catch (error) {
    if (error instanceof Endless) return undefined;
    throw error;
  }
}

const isJson = (value: unknown): value is Json => typeof value === "object" && value !== null && !Array.isArray(value);

function sample(schema: unknown, context: SampleContext, depth: number): unknown {
  if (depth > deepest) throw new Endless();
  const { random } = context;
  if (!isJson(schema)) return random.pick(["any", 3, true]);
  if ((schema["nullable"] === true || schema["x-nullable"] === true) && random.chance(0.2)) return null;
  if (typeof schema["$ref"] === "string") {
    const target = sample(resolve(schema["$ref"], context.document), context, depth + 1);
    const beside = schema["properties"] ? sampleRecord(schema, context, depth) : undefined;
    return isJson(target) && beside ? { ...target, ...beside } : target;
  }
  if ("const" in schema) return schema["const"];
  const listed = schema["enum"];
  if (Array.isArray(listed) && listed.length > 0) return random.pick(listed as unknown[]);
  const parts: unknown[] = [];
  const allOf = schema["allOf"];
  if (Array.isArray(allOf)) parts.push(...allOf.map((each: unknown) => sample(each, context, depth + 1)));
  for (const key of ["oneOf", "anyOf"]) {
    const members = schema[key];
    if (Array.isArray(members) && members.length > 0)
      parts.push(sample(random.pick(members as unknown[]), context, depth + 1));
  }
  const own = sampleTyped(schema, context, depth);
  if (own !== undefined) parts.push(own);
  if (parts.length === 0) return random.pick(["any", 3, false]);
  const records = parts.filter(isJson);
  return records.length > 1 ? (Object.assign({}, ...records) as Json) : (records[0] ?? parts.at(-1));
}

function resolve(reference: string, document: Json): unknown {
  let node: unknown = document;
  for (const token of decodeURIComponent(reference.slice(1)).split("/").slice(1)) {
    node = isJson(node) ? node[token.replaceAll("~1", "/").replaceAll("~0", "~")] : undefined;
  }
  return node;
}

const textByFormat: Readonly<Record<string, string>> = {
  date: "2026-05-01",
  "date-time": "2026-05-01T08:30:00Z",
  uuid: "0f4a7c1e-2b3d-4e5f-8a9b-0c1d2e3f4a5b",
  email: "skipper@example.test",
  uri: "https://example.test/",
};

function sampleTyped(schema: Json, context: SampleContext, depth: number): unknown {
  const { random } = context;
  const said = schema["type"];
  const type = Array.isArray(said) ? random.pick(said as unknown[]) : said;
  switch (type ?? (schema["properties"] ? "object" : undefined)) {
    case "string":
      return context.inForm && schema["format"] === "binary"
        ? bytesMark
        : (textByFormat[String(schema["format"])] ?? sampleText(schema, random));
    case "integer":
      return random.pick([0, 3, 7, ...limits(schema)]);
    case "number":
      return random.pick([0, 1.5, 42, 7.25, ...limits(schema).flatMap((limit) => [limit, limit + 0.5, limit - 0.5])]);
    case "boolean":
      return random.chance(0.5);
    case "null":
      return null;
    case "file":
      return bytesMark;
    case "array":
      return sampleList(schema, context, depth);
    case "object":
      return sampleRecord(schema, context, depth);
    default:
      return undefined;
  }
}

function limits(schema: Json): number[] {
  return ["minimum", "maximum"].flatMap((key) => (typeof schema[key] === "number" ? [schema[key]] : []));
}

/** Strings for common patterns. Each is tried. */
const patterned = ["34.50", "abc", "A1", "0", "text", "N-07", "2026-05-01"];

function sampleText({ pattern, minLength, maxLength }: Json, random: Randomness): string {
  if (typeof pattern === "string") {
    const fitting = patterned.filter((text) => new RegExp(pattern, "u").test(text));
    if (fitting.length > 0) return random.pick(fitting);
  }
  const text = random.pick(["text", "", "*/ ${x} `y`"]);
  if (typeof maxLength === "number" && random.chance(0.3)) return "x".repeat(Math.min(maxLength, 60));
  return typeof minLength === "number" ? text.padEnd(Math.min(minLength, 60), "x") : text;
}

function sampleList(schema: Json, context: SampleContext, depth: number): unknown[] {
  const { random } = context;
  const prefix = Array.isArray(schema["prefixItems"]) ? (schema["prefixItems"] as unknown[]) : [];
  const least = typeof schema["minItems"] === "number" ? schema["minItems"] : 0;
  const count = Math.max(least, random.below(prefix.length + 1));
  const first = prefix.slice(0, count).map((each) => sample(each, context, depth + 1));
  if (first.length < prefix.length || schema["items"] === undefined || schema["items"] === false) return first;
  if (depth > deepest / 2) return first;
  return [...first, ...Array.from({ length: random.below(3) }, () => sample(schema["items"], context, depth + 1))];
}

function sampleRecord(schema: Json, context: SampleContext, depth: number): Json {
  const { random, direction } = context;
  const value: Json = {};
  const set = (name: string, each: unknown): void => {
    Object.defineProperty(value, name, { value: each, enumerable: true, configurable: true, writable: true });
  };
  const required = Array.isArray(schema["required"]) ? (schema["required"] as unknown[]) : [];
  const properties = isJson(schema["properties"]) ? schema["properties"] : {};
  const against = direction === "answer" ? "writeOnly" : "readOnly";
  for (const name of Object.keys(properties)) {
    const each = properties[name];
    if (isJson(each) && each[against] === true) continue;
    if (!required.includes(name) && (depth > deepest / 2 || random.chance(0.4))) continue;
    set(name, sample(each, context, depth + 1));
  }
  const additional = schema["additionalProperties"];
  const patterns = isJson(schema["patternProperties"]) ? Object.values(schema["patternProperties"]) : [];
  if (isJson(additional) && depth < deepest / 2 && random.chance(0.5))
    set("other", sample(additional, context, depth + 1));
  if (patterns.length > 0 && random.chance(0.5)) set("x-other", sample(patterns[0], context, depth + 1));
  return value;
}
