/** Styles that few contracts use. An app whose calls do not need them does not include them. */
import { encode, form, json, simple, text } from "./parameters.js";

/** Items, or the keys and values of an object in turn, with a separator between them. */
function separated(name: string, value: unknown, separator: string): string {
  if (typeof value !== "object" || value === null) return form(name, value, false);
  const items: unknown[] = Array.isArray(value)
    ? value
    : Object.entries(value).flatMap(([key, each]) => (each === undefined ? [] : [key, each as unknown]));
  const written = items.map((each) => encode(text(each)));
  return written.length === 0 ? "" : `${encode(name)}=${written.join(separator)}`;
}

/** Query style "spaceDelimited" (OpenAPI 3.1, section 4.8.12.6): `name=a%20b`, or for an object `name=k%20v`. */
export function spaced(name: string, value: unknown): string {
  return separated(name, value, "%20");
}

/** Query style "pipeDelimited": `name=a%7Cb`, or for an object `name=k%7Cv`. */
export function piped(name: string, value: unknown): string {
  return separated(name, value, "%7C");
}

/** Tab-separated values (OpenAPI 2.0, `tsv`): `name=a%09b`. */
export function tabbed(name: string, value: unknown): string {
  return separated(name, value, "%09");
}

/** Query style "form" that does not encode the reserved characters of a URL (`allowReserved`). */
export function reserved(name: string, value: unknown, explode = true): string {
  return form(name, value, explode, encodeAllowed);
}

/**
 * Percent-encodes all characters except those that RFC 3986 reserves. It does encode those that would end the value or
 * the query, and the apostrophe, which platforms encode anyway.
 */
function encodeAllowed(value: string): string {
  return encode(value)
    .replace(/'/g, "%27")
    .replace(/%(?:3A|2F|3F|5B|5D|40|21|24|28|29|2A|2C|3B)/g, decodeURIComponent);
}

/** Query style "deepObject": `name[key]=value`, also for nested objects and lists. */
export function deepObject(name: string, value: unknown): string {
  return deepPairs(name, value).join("&");
}

function deepPairs(name: string, value: unknown): string[] {
  if (value === undefined) return [];
  if (Array.isArray(value)) return value.flatMap((each) => deepPairs(name, each));
  if (typeof value === "object" && value !== null) {
    return Object.entries(value).flatMap(([key, each]) => deepPairs(`${name}[${key}]`, each));
  }
  return [`${encode(name)}=${encode(text(value))}`];
}

/** A query parameter whose value is JSON. */
export function jsonQuery(name: string, value: unknown): string {
  return value === undefined ? "" : `${encode(name)}=${encode(json(value))}`;
}

/** JSON in a path, in a header (not percent-encoded), or as the whole query string. */
export function jsonText(value: unknown, isEncoded = true): string {
  if (value === undefined) return "";
  return isEncoded ? encode(json(value)) : json(value);
}

/** Path style "label": `.a,b`, or `.a.b` if exploded. */
export function label(value: unknown, explode = false): string {
  const written = simple(value, explode);
  return `.${explode ? written.replace(/,/g, ".") : written}`;
}

/** Path style "matrix": `;name=a,b`, or `;name=a;name=b` if exploded. */
export function matrix(name: string, value: unknown, explode = false): string {
  const key = encode(name);
  if (!explode) return `;${key}=${simple(value)}`;
  if (Array.isArray(value)) return value.map((each) => `;${key}=${simple(each)}`).join("");
  if (typeof value === "object" && value !== null) return `;${simple(value, true).replace(/,/g, ";")}`;
  return `;${key}=${simple(value)}`;
}
