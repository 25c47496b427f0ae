import type { Conversion } from "./bodies.js";

/** A conversion that is looked up when it is used, because types refer to each other. */
export type Later = () => Conversion;

/** A date-time as a `Date`. */
export const dates: Conversion = {
  decode: (value) => {
    const date = typeof value === "string" ? new Date(value) : undefined;
    return date === undefined || Number.isNaN(date.getTime()) ? value : date;
  },
  encode: (value) => (value instanceof Date ? value.toISOString() : value),
};

/** A format of the app's own, with the app's functions for the string or number in JSON. */
export function custom<Wire, Own>(decode: (value: Wire) => Own, encode: (value: Own) => Wire): Conversion {
  const unlessNull = (convert: (value: never) => unknown) => (value: unknown) =>
    value === null || value === undefined ? value : convert(value as never);
  return { decode: unlessNull(decode), encode: unlessNull(encode) };
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function both(convert: (value: unknown, way: keyof Conversion) => unknown): Conversion {
  return { decode: (value) => convert(value, "decode"), encode: (value) => convert(value, "encode") };
}

/** Another conversion, which may be declared later. */
export function alias(of: Later): Conversion {
  return both((value, way) => of()[way](value));
}

/** An object in which some fields are converted. `rest` is for undeclared keys. */
export function fields(
  of: Readonly<Record<string, Later>>,
  rest?: Later,
  declared: readonly string[] = [],
): Conversion {
  const known = new Set([...declared, ...Object.keys(of)]);
  return both((value, way) => {
    if (!isRecord(value)) return value;
    const copy = { ...value };
    for (const name of Object.keys(copy)) {
      const conversion = Object.prototype.hasOwnProperty.call(of, name) ? of[name] : known.has(name) ? undefined : rest;
      if (conversion) copy[name] = conversion()[way](copy[name]);
    }
    return copy;
  });
}

/** Every item of a list. */
export function items(of: Later): Conversion {
  return both((value, way) => (Array.isArray(value) ? value.map((each: unknown) => of()[way](each)) : value));
}

/** Items by position, then the rest. */
export function positions(of: readonly (Later | undefined)[], rest?: Later): Conversion {
  return both((value, way) =>
    Array.isArray(value)
      ? value.map((each: unknown, at) => {
          const conversion = at < of.length ? of[at] : rest;
          return conversion ? conversion()[way](each) : each;
        })
      : value,
  );
}

/** The union member that the object's tag names. */
export function tagged(tag: string, of: Readonly<Record<string, Later>>): Conversion {
  return both((value, way) => {
    const name = isRecord(value) ? String(value[tag]) : "";
    const conversion = Object.prototype.hasOwnProperty.call(of, name) ? of[name] : undefined;
    return conversion ? conversion()[way](value) : value;
  });
}

/** How a union member without a tag is recognised. */
export interface Alternative {
  readonly kind: "text" | "number" | "list" | "record";
  /** Single values that it stands for. */
  readonly values?: readonly unknown[];
  /** Fields that are always present. */
  readonly needs?: readonly string[];
  /** Fields with a fixed set of values. */
  readonly where?: Readonly<Record<string, readonly unknown[]>>;
  readonly of?: Later;
}

/** The first union member that a value matches. */
export function either(...alternatives: readonly Alternative[]): Conversion {
  return both((value, way) => {
    const found = alternatives.find((each) => looksLike(value, each));
    return found?.of ? found.of()[way](value) : value;
  });
}

function looksLike(value: unknown, { kind, values, needs = [], where = {} }: Alternative): boolean {
  if (values) return values.includes(value);
  if (kind === "list") return Array.isArray(value);
  if (kind === "record")
    return (
      isRecord(value) &&
      !(value instanceof Date) &&
      needs.every((name) => name in value) &&
      Object.entries(where).every(([name, constants]) => constants.includes(value[name]))
    );
  if (kind === "text") return typeof value === "string" || value instanceof Date;
  return typeof value === "number" || typeof value === "bigint";
}
