import { unsendable } from "./failure.js";

/** A string as a segment of an address. */
export function encode(text: string): string {
  try {
    return encodeURIComponent(text);
  } catch {
    // Half of a character (a lone surrogate) has no bytes.
    return unsendable;
  }
}

/** A value as JSON. For a value that JSON cannot express, the result is half of a character, which cannot be sent. */
export function json(value: unknown): string {
  try {
    return JSON.stringify(value);
  } catch {
    return "\ud800";
  }
}

/** A single value as text. An object inside a value becomes JSON. */
export function text(value: unknown): string {
  if (typeof value === "string") return value;
  if (typeof value === "number" || typeof value === "bigint" || typeof value === "boolean") return String(value);
  return json(value);
}

/** The entries that are present: undefined means absent. */
function entries(value: object): [string, unknown][] {
  return Object.entries(value).filter(([, each]) => each !== undefined);
}

/**
 * Path style "simple" (RFC 6570, section 3.2.2): `a`, `a,b`, or for an object `k,v` (`k=v` if exploded).
 *
 * @param name the argument, for the failure if it cannot be sent
 */
export function segment(value: unknown, name: string, explode = false): string {
  const written = simple(value, explode);
  // Without it, the path would be another one.
  return written === "" || written.includes(unsendable) ? unsendable + name + unsendable : written;
}

/** Style "simple" (RFC 6570, section 3.2.2), also as a part of other styles. */
export function simple(value: unknown, explode = false): string {
  if (Array.isArray(value)) return value.map((each) => encode(text(each))).join(",");
  if (typeof value === "object" && value !== null) {
    return entries(value)
      .map(([key, each]) => `${encode(key)}${explode ? "=" : ","}${encode(text(each))}`)
      .join(",");
  }
  return encode(text(value));
}

/** Header style "simple": like a path segment, without percent-encoding; undefined if the value is absent. */
export function header(value: unknown, explode = false): string | undefined {
  if (value === undefined) return undefined;
  if (Array.isArray(value)) return value.map(text).join(",");
  if (typeof value === "object" && value !== null) {
    return entries(value)
      .map(([key, each]) => `${key}${explode ? "=" : ","}${text(each)}`)
      .join(",");
  }
  return text(value);
}

/** Query style "form": `name=a&name=b` if exploded (the default), otherwise `name=a,b`; "" if the value is absent. */
export function form(
  name: string,
  value: unknown,
  explode = true,
  encodeValue: (text: string) => string = encode,
): string {
  if (value === undefined) return "";
  if (Array.isArray(value)) {
    if (value.length === 0) return "";
    const parts = value.map((each) => encodeValue(text(each)));
    return explode ? parts.map((part) => `${encode(name)}=${part}`).join("&") : `${encode(name)}=${parts.join(",")}`;
  }
  if (typeof value === "object" && value !== null) {
    const pairs = entries(value);
    if (explode) return pairs.map(([key, each]) => `${encode(key)}=${encodeValue(text(each))}`).join("&");
    return `${encode(name)}=${pairs.map(([key, each]) => `${encode(key)},${encodeValue(text(each))}`).join(",")}`;
  }
  return `${encode(name)}=${encodeValue(text(value))}`;
}
