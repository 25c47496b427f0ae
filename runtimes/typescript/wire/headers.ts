/** Reads single values of headers; what is not a number or a truth value reads as absent. */
export function readHeader<Value>(
  headers: Headers,
  name: string,
  read: (text: string) => Value | undefined,
): Value | undefined {
  const text = headers.get(name);
  return text === null ? undefined : read(text);
}

/** Reads a header that is a list, separated by commas. */
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

/** One of the values the contract allows; another reads as absent. */
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
