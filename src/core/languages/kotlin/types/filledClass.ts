import { sentences } from "../../../sdk/lower/sentences.js";
import type { FileContext } from "../contractContext.js";
import { comment, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";

/** A property of a class with more of them than a constructor can take. */
export interface FilledProperty {
  /** Comments and annotations before it. */
  readonly doc: string;
  readonly name: string;
  readonly type: string;
  /** Its default; undefined if it is required. */
  readonly fallback?: string | undefined;
  /** Whether an interface has it too. */
  readonly isOverride?: boolean;
}

/** The name of a class, its documentation and its interfaces. */
export interface FilledClass {
  readonly name: string;
  readonly words: readonly (string | undefined)[];
  /** With the colon before them; "" if there are none. */
  readonly interfaces?: string;
}

/**
 * Prints a class whose properties are set one by one, because it has more of them than a constructor can take. A
 * required one that is not set throws when it is read.
 */
export function filledClass(
  { name, words, interfaces = "" }: FilledClass,
  properties: readonly FilledProperty[],
  { uses }: FileContext,
): string {
  const lines = properties.map(({ doc, name: property, type, fallback, isOverride }) => {
    const start = fallback === undefined ? `by ${uses.wire("Needed")}(${quoted(property)})` : `= ${fallback}`;
    return `${doc}    ${isOverride === true ? "override" : "public"} var ${spelled(property)}: ${type} ${start}\n`;
  });
  return `${comment(...words, sentences.manyProperties)}public class ${name}(fill: ${name}.() -> Unit)${interfaces} {\n${lines.join("\n")}\n    init {\n        fill()\n    }\n}\n`;
}
