import type { Conversion } from "./bodies.js";

/** Where a value is not what the contract says. */
export interface Mismatch {
  /** JSON pointer into the answer (RFC 6901), "" for the whole of it. */
  readonly path: string;
  /** What the contract says, in words. */
  readonly expected: string;
}

/** Holds a value against a part of the contract: the first mismatch, or undefined. */
export type Check = (value: unknown, path: string) => Mismatch | undefined;

function plain(fits: (value: unknown) => boolean, expected: string): Check {
  return (value, path) => (fits(value) ? undefined : { path, expected });
}

/** A number, or the digits of one that was kept exact. */
function isNumeric(value: unknown): boolean {
  return typeof value === "number" || (typeof value === "string" && value.startsWith("\u0000integer:"));
}

export const isText: Check = plain((value) => typeof value === "string", "text");
export const isNumber: Check = plain(isNumeric, "a number");
export const isInteger: Check = plain(
  (value) => isNumeric(value) && !(typeof value === "number" && !Number.isInteger(value)),
  "a whole number",
);
export const isBoolean: Check = plain((value) => typeof value === "boolean", "true or false");
export const isAnything: Check = () => undefined;
export const isNothing: Check = plain(() => false, "nothing");

/** One of some constants. */
export function isOneOf(...values: readonly (string | number | boolean)[]): Check {
  return plain((value) => values.includes(value as string), values.map((value) => JSON.stringify(value)).join(" or "));
}

/** Null, or what another check says. */
export function orNull(of: Check): Check {
  return (value, path) => (value === null ? undefined : of(value, path));
}

/** The check of a type by its name. */
export type CheckOf = (name: string) => Check;

/** Checks of types that refer to each other by name; each is made when it is first used. */
export function checksByName(makers: Readonly<Record<string, (of: CheckOf) => Check>>): CheckOf {
  const made = new Map<string, Check>();
  const of: CheckOf = (name) => (value, path) => {
    const check = made.get(name) ?? makers[name]?.(of) ?? isAnything;
    made.set(name, check);
    return check(value, path);
  };
  return of;
}

function below(path: string, key: string | number): string {
  return `${path}/${String(key).replace(/~/g, "~0").replace(/\//g, "~1")}`;
}

function isRecordValue(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

/**
 * A record: fields that have to be there, fields that may be, and what any other key holds; held against in this order,
 * whatever order they came in.
 */
export function isRecord(
  needed: Readonly<Record<string, Check>>,
  optional: Readonly<Record<string, Check>> = {},
  rest: Check = isAnything,
): Check {
  const fields = [...Object.entries(needed), ...Object.entries(optional)];
  const known = new Set(fields.map(([name]) => name));
  return (value, path) => {
    if (!isRecordValue(value)) return { path, expected: "a record" };
    for (const name of Object.keys(needed))
      if (!Object.prototype.hasOwnProperty.call(value, name))
        return { path, expected: `a field ${JSON.stringify(name)}` };
    for (const [name, check] of fields) {
      const wrong = Object.prototype.hasOwnProperty.call(value, name)
        ? check(value[name], below(path, name))
        : undefined;
      if (wrong) return wrong;
    }
    if (rest === isAnything) return undefined;
    for (const [name, each] of Object.entries(value)) {
      const wrong = known.has(name) ? undefined : rest(each, below(path, name));
      if (wrong) return wrong;
    }
    return undefined;
  };
}

/** A list of any length. */
export function isList(of: Check): Check {
  return isTuple([], 0, of);
}

/** Items by their position, of which the first ones have to be there, then the rest. */
export function isTuple(items: readonly Check[], needed: number, rest?: Check): Check {
  return (value, path) => {
    if (!Array.isArray(value)) return { path, expected: "a list" };
    if (value.length < needed) return { path, expected: `${String(needed)} items` };
    for (const [at, each] of (value as readonly unknown[]).entries()) {
      const check = items[at] ?? rest;
      if (!check) return { path: below(path, at), expected: "no more items" };
      const wrong = check(each, below(path, at));
      if (wrong) return wrong;
    }
    return undefined;
  };
}

/** What at least one of several checks takes; the mismatch is that of the one that came furthest. */
export function isEither(...checks: readonly Check[]): Check {
  return (value, path) => {
    let furthest: Mismatch | undefined;
    for (const check of checks) {
      const wrong = check(value, path);
      if (!wrong) return undefined;
      if (!furthest || wrong.path.length > furthest.path.length) furthest = wrong;
    }
    return furthest?.path === path ? { path, expected: "one of several kinds of value" } : furthest;
  };
}

/** A record of which a field tells by what it is checked. */
export function isTagged(field: string, checks: Readonly<Record<string, Check>>): Check {
  return (value, path) => {
    const tag = isRecordValue(value) ? value[field] : undefined;
    const check =
      typeof tag === "string" && Object.prototype.hasOwnProperty.call(checks, tag) ? checks[tag] : undefined;
    if (check) return check(value, path);
    return {
      path: below(path, field),
      expected: Object.keys(checks)
        .map((each) => JSON.stringify(each))
        .join(" or "),
    };
  };
}

/** Checks what came before it is converted; a mismatch is thrown, and becomes the cause of the call's failure. */
export function verified(check: Check, conversion?: Pick<Conversion, "decode">): Pick<Conversion, "decode"> {
  return {
    decode: (value) => {
      const wrong = check(value, "");
      if (!wrong) return conversion ? conversion.decode(value) : value;
      const where = wrong.path === "" ? "the answer" : wrong.path;
      throw Object.assign(new Error(`${where} has to be ${wrong.expected}`), wrong);
    },
  };
}
