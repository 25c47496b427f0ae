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

export function asText(text: string): string {
  return text;
}

/** One of the values that the contract allows; another value is undefined. */
export function asOneOf<const Value extends string>(...values: readonly Value[]): (text: string) => Value | undefined {
  return (text) => values.find((value) => value === text);
}

export function asNumber(text: string): number | undefined {
  const value = Number(text);
  return text.trim() === "" || Number.isNaN(value) ? undefined : value;
}

export function asBoolean(text: string): boolean | undefined {
  return text === "true" ? true : text === "false" ? false : undefined;
}
