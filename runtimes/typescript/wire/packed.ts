/** Marks a value that JSON cannot express. An object with a field of this name is marked too. */
const mark = "$rhema";

/**
 * A response in a form that JSON can carry, for example from a server that renders to the browser. Dates, big integers,
 * bytes and undefined stay distinct from all other values.
 *
 * @throws TypeError for a value of a class of the app: only the app knows how to write it
 */
export function packed(value: unknown): unknown {
  switch (typeof value) {
    case "bigint":
      return { [mark]: ["bigint", value.toString()] };
    case "undefined":
      return { [mark]: ["undefined"] };
    case "number":
      // JSON has neither these numbers nor negative zero.
      return Number.isFinite(value) && !Object.is(value, -0)
        ? value
        : { [mark]: ["number", Object.is(value, -0) ? "-0" : String(value)] };
    case "object":
      return value === null ? null : packedObject(value);
    case "function":
    case "symbol":
      throw unpackable(typeof value);
    default:
      return value;
  }
}

function packedObject(value: object): unknown {
  if (Array.isArray(value)) return value.map(packed);
  if (value instanceof Date) return { [mark]: ["date", Number.isNaN(value.getTime()) ? "" : value.toISOString()] };
  if (value instanceof Uint8Array) return { [mark]: ["bytes", Array.from(value)] };
  const prototype: unknown = Object.getPrototypeOf(value);
  if (prototype !== null && prototype !== Object.prototype)
    throw unpackable((value.constructor as { name?: string } | undefined)?.name ?? "object");
  const entries = Object.entries(value).map(([name, inner]) => [name, packed(inner)] as const);
  const plain = Object.fromEntries(entries);
  return mark in value ? { [mark]: ["plain", entries] } : plain;
}

function unpackable(what: string): TypeError {
  return new TypeError(`A value of ${what} cannot be packed; pack what it was made from.`);
}

/** Restores a value from the result of `packed`. */
export function unpacked(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(unpacked);
  if (typeof value !== "object" || value === null) return value;
  const marked = (value as Readonly<Record<string, unknown>>)[mark];
  if (!(mark in value) || !Array.isArray(marked))
    return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, unpacked(inner)]));
  const [kind, of] = marked as [string, unknown];
  switch (kind) {
    case "bigint":
      return BigInt(of as string);
    case "number":
      return Number(of);
    case "date":
      return new Date(of as string);
    case "bytes":
      return Uint8Array.from(of as number[]);
    case "plain":
      return Object.fromEntries((of as [string, unknown][]).map(([name, inner]) => [name, unpacked(inner)]));
    default:
      return undefined;
  }
}
