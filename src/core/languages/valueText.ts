/** Returns the text of a value from JSON. */
export function valueText(value: unknown): string {
  return typeof value === "string" ? value : JSON.stringify(value);
}

/** Returns the items of a value from JSON. A value that is not a list is one item. */
export function itemsOf(value: unknown): readonly unknown[] {
  return Array.isArray(value) ? (value as readonly unknown[]) : [value];
}
