import { load, CORE_SCHEMA, Type, YAMLException } from "js-yaml";

export type ParsedData =
  | { readonly ok: true; readonly data: unknown }
  | { readonly ok: false; readonly message: string; readonly offset: number };

// Timestamps stay strings (a date in a contract is an example or a default, never a Date). Merge keys are supported.
const mergeKey = new Type("tag:yaml.org,2002:merge", {
  kind: "scalar",
  resolve: (data: unknown) => data === "<<" || data === null,
});
/** The options for reading YAML. */
export const yamlOptions = { schema: CORE_SCHEMA.extend({ implicit: [mergeKey] }), json: true } as const;

/**
 * Parses JSON or YAML (which includes JSON) into plain data. Of repeated keys the last one counts, as in JSON.
 *
 * @param text the whole document
 */
export function parseData(text: string): ParsedData {
  const body = text.startsWith("\ufeff") ? text.slice(1) : text;
  const asJson = /^\s*[[{]/.test(body);
  if (asJson) {
    try {
      return { ok: true, data: JSON.parse(body) as unknown };
    } catch {
      // A flow-style YAML document also begins with a brace. The YAML parser decides, and gives the better place.
    }
  }
  try {
    const data = load(body, yamlOptions);
    if (body.includes("*") && countNodes(data, mostNodes) >= mostNodes) {
      return { ok: false, message: `its aliases unfold into more than ${String(mostNodes)} values`, offset: 0 };
    }
    return { ok: true, data };
  } catch (error) {
    if (error instanceof YAMLException) {
      return { ok: false, message: error.reason, offset: error.mark.position };
    }
    if (error instanceof RangeError) return { ok: false, message: "it is nested too deeply", offset: 0 };
    throw error;
  }
}

/** Far above any real contract (the largest known have some hundred thousand), and far below the memory limit. */
const mostNodes = 5_000_000;

/** Counts the values of a document with every alias expanded. Counting stops at the limit. */
function countNodes(data: unknown, limit: number): number {
  let count = 0;
  const open: unknown[] = [data];
  while (open.length > 0 && count < limit) {
    const value = open.pop();
    count++;
    if (typeof value === "object" && value !== null) for (const child of Object.values(value)) open.push(child);
  }
  return count;
}

export type Data = Readonly<Record<string, unknown>>;

/** Returns whether a value is a plain object: not null, not a list. */
export function isData(value: unknown): value is Data {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/** Returns a member of an object, never one inherited from Object.prototype. */
export function member(data: Data, key: string): unknown {
  return Object.hasOwn(data, key) ? data[key] : undefined;
}

/** Returns a member of an object if it is a string. */
export function textMember(data: Data, key: string): string | undefined {
  const value = member(data, key);
  return typeof value === "string" ? value : undefined;
}

/** Returns a member of an object if it is a list. */
export function listMember(data: Data, key: string): readonly unknown[] | undefined {
  const value = member(data, key);
  return Array.isArray(value) ? (value as readonly unknown[]) : undefined;
}

/** Returns a member of an object if it is an object. */
export function dataMember(data: Data, key: string): Data | undefined {
  const value = member(data, key);
  return isData(value) ? value : undefined;
}
