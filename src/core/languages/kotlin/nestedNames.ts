import type { FileContext } from "./contractContext.js";

/**
 * A type as it is spelled inside a class: what a nested class has the name of is named with its package.
 *
 * @param nested names of the classes that are nested there
 */
export function besideNested(type: string, nested: Iterable<string>, context: FileContext): string {
  const hidden = new Set(nested);
  return type.replace(/(?<![\w.`])[\p{L}_][\p{L}\p{Nd}_]*/gu, (name) => {
    if (!hidden.has(name)) return name;
    return context.uses.wholeName(name) ?? `${context.package}.${name}`;
  });
}
