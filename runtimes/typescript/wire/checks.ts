import type { Conversion } from "./bodies.js";

/** The place where a value does not match the contract. */
export interface Mismatch {
  /** JSON pointer into the response body (RFC 6901), "" for the whole body. */
  readonly path: string;
  /** What the contract expects, in words. */
  readonly expected: string;
}

/** Validates a value against a part of the contract. Returns the first mismatch, or undefined. */
export type Check = (value: unknown, path: string) => Mismatch | undefined;

function plain(fits: (value: unknown) => boolean, expected: string): Check {
  return (value, path) => (fits(value) ? undefined : { path, expected });
}

/** A number, or the digits of a number that was kept exact. */
function isNumeric(value: unknown): boolean {
  return typeof value === "number" || (typeof value === "string" && value.startsWith("\u0000integer:"));
}

export const isText: Check = plain((value) => typeof value === "string", "a string");
export const isNumber: Check = plain(isNumeric, "a number");
export const isInteger: Check = plain(
  (value) => isNumeric(value) && !(typeof value === "number" && !Number.isInteger(value)),
  "an integer",
);
export const isBoolean: Check = plain((value) => typeof value === "boolean", "a boolean");
export const isAnything: Check = () => undefined;
export const isNothing: Check = plain(() => false, "nothing");

/** One of several constants. */
export function isOneOf(...values: readonly (string | number | boolean)[]): Check {
  return plain((value) => values.includes(value as string), values.map((value) => JSON.stringify(value)).join(" or "));
}

/** Null, or a value that passes another check. */
export function orNull(of: Check): Check {
  return (value, path) => (value === null ? undefined : of(value, path));
}

/** The check of the type with this name. */
export type CheckOf = (name: string) => Check;

/** Checks of types that refer to each other by name. Each is made when it is first used. */
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
 * An object: required fields, optional fields, and the check for all other keys. The fields are checked in this order,
 * whatever their order in the body.
 */
export function isRecord(
  needed: Readonly<Record<string, Check>>,
  optional: Readonly<Record<string, Check>> = {},
  rest: Check = isAnything,
): Check {
  const fields = [...Object.entries(needed), ...Object.entries(optional)];
  const known = new Set(fields.map(([name]) => name));
  return (value, path) => {
    if (!isRecordValue(value)) return { path, expected: "an object" };
    for (const name of Object.keys(needed))
      if (!Object.prototype.hasOwnProperty.call(value, name))
        return { path, expected: `an object with the field ${JSON.stringify(name)}` };
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

/** Items by position: the first ones are required, the rest is optional. */
export function isTuple(items: readonly Check[], needed: number, rest?: Check): Check {
  return (value, path) => {
    if (!Array.isArray(value)) return { path, expected: "a list" };
    if (value.length < needed) return { path, expected: `a list of ${String(needed)} or more items` };
    for (const [at, each] of (value as readonly unknown[]).entries()) {
      const check = items[at] ?? rest;
      if (!check) return { path: below(path, at), expected: "absent" };
      const wrong = check(each, below(path, at));
      if (wrong) return wrong;
    }
    return undefined;
  };
}

/**
 * A value that passes at least one of several checks. If none passes, the mismatch is that of the check that got
 * furthest.
 */
export function isEither(...checks: readonly Check[]): Check {
  return (value, path) => {
    let furthest: Mismatch | undefined;
    for (const check of checks) {
      const wrong = check(value, path);
      if (!wrong) return undefined;
      if (!furthest || wrong.path.length > furthest.path.length) furthest = wrong;
    }
    return furthest?.path === path ? { path, expected: "one of several types" } : furthest;
  };
}

/** An object whose check depends on the value of one field. */
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

/** Validates a value before it is converted. A mismatch is thrown and becomes the cause of the call's failure. */
export function verified(check: Check, conversion?: Pick<Conversion, "decode">): Pick<Conversion, "decode"> {
  return {
    decode: (value) => {
      const wrong = check(value, "");
      if (!wrong) return conversion ? conversion.decode(value) : value;
      const where = wrong.path === "" ? "the response" : wrong.path;
      throw Object.assign(new Error(`${where} must be ${wrong.expected}`), wrong);
    },
  };
}
