import { isData, type Data } from "../text/parseData.js";
import { namesBelow, partsKey, valuesBelow } from "./linkDocuments.js";

const words = new Set(["description", "summary", "externalDocs", "example", "examples"]);

/**
 * A contract without what no change is judged by: words, examples and extensions. What is left gives the
 * same types.
 */
export function pinnedData(data: Data): Data {
  return without(data, false, 0) as Data;
}

const deepest = 1_000;

function without(value: unknown, names: boolean, depth: number): unknown {
  if (typeof value !== "object" || value === null) return value;
  // So deep that it was set aside anyway, and beyond what can be written down.
  if (depth > deepest) return true;
  if (Array.isArray(value)) return value.map((each: unknown) => without(each, false, depth + 1));
  if (!isData(value)) return value;
  const copy: Record<string, unknown> = {};
  for (const key of Object.keys(value)) {
    if (!names && isWord(key)) continue;
    const each = !names && valuesBelow.has(key) ? value[key] : without(value[key], !names && isNames(key), depth + 1);
    if (key === "__proto__")
      Object.defineProperty(copy, key, { value: each, enumerable: true, writable: true, configurable: true });
    else copy[key] = each;
  }
  return copy;
}

function isNames(key: string): boolean {
  return namesBelow.has(key) || key === partsKey;
}

function isWord(key: string): boolean {
  if (key.startsWith("x-")) return key !== "x-nullable" && key !== partsKey;
  return words.has(key);
}
