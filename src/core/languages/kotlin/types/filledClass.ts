import { sentences } from "../../../sdk/lower/sentences.js";
import type { FileContext } from "../contractContext.js";
import { comment, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";

/** A property of a class that has more of them than a constructor takes. */
export interface FilledProperty {
  /** Comments and annotations that stand before it. */
  readonly doc: string;
  readonly name: string;
  readonly type: string;
  /** What it is where nothing is given; undefined where something has to be. */
  readonly fallback?: string | undefined;
  /** An interface has it too. */
  readonly isOverride?: boolean;
}

/** What a class is called, what is said about it, and what it implements. */
export interface FilledClass {
  readonly name: string;
  readonly words: readonly (string | undefined)[];
  /** With the colon before them; "" where there are none. */
  readonly interfaces?: string;
}

/**
 * A class whose properties are set one by one, because there are more of them than a constructor takes. One that has to
 * be set and is not says so when it is read.
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
