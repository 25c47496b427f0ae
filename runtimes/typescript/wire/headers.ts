/** Reads single values of headers. A value that is not a number or a boolean is undefined. */
export function readHeader<Value>(
  headers: Headers,
  name: string,
  read: (text: string) => Value | undefined,
): Value | undefined {
  const text = headers.get(name);
  return text === null ? undefined : read(text);
}

/** Reads a header that is a comma-separated list. */
export function readHeaders<Value>(
  headers: Headers,
  name: string,
  read: (text: string) => Value | undefined,
): Value[] | undefined {
  const text = headers.get(name);
  if (text === null) return undefined;
  return text === "" ? [] : text.split(",").flatMap((part) => read(part.trim()) ?? []);
}

/** A header's value as it is. */
export function asText(text: string): string {
  return text;
}

/** One of the values that the contract allows; another value is undefined. */
export function asOneOf<const Value extends string>(...values: readonly Value[]): (text: string) => Value | undefined {
  return (text) => values.find((value) => value === text);
}

/** A header's value as a number; undefined if it is not one. */
export function asNumber(text: string): number | undefined {
  const value = Number(text);
  return text.trim() === "" || Number.isNaN(value) ? undefined : value;
}

/** A header's value as a boolean; undefined if it is neither `true` nor `false`. */
export function asBoolean(text: string): boolean | undefined {
  return text === "true" ? true : text === "false" ? false : undefined;
}
