/** A value as JSON has it, as the text that stands for it. */
export function valueText(value: unknown): string {
  return typeof value === "string" ? value : JSON.stringify(value);
}

/** The items of a value as JSON has it; one that is no list is an item itself. */
export function itemsOf(value: unknown): readonly unknown[] {
  return Array.isArray(value) ? (value as readonly unknown[]) : [value];
}
