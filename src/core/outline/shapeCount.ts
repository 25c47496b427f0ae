import type { Shape } from "../contract/model.js";
import { shapeWords } from "../contract/shapeWords.js";

/** Returns a shape with its size: "an object of 5 fields", "an enum of 3 values". */
export function shapeCount(shape: Shape): string {
  const many = (count: number, one: string): string => `${String(count)} ${one}${count === 1 ? "" : "s"}`;
  switch (shape.kind) {
    case "record":
      return `an object of ${many(shape.fields.length, "field")}`;
    case "choice":
      return `an enum of ${many(shape.values.length, "value")}`;
    case "union":
      return `a union of ${many(shape.members.length, "type")}`;
    default:
      return shapeWords(shape);
  }
}

/** Returns the first sentence of a description, on one line; undefined if there is none. */
export function firstSentence(text: string | undefined): string | undefined {
  const line = text?.replace(/\s+/g, " ").trim();
  if (line === undefined || line === "") return undefined;
  return /^.*?[.!?](?= |$)/.exec(line)?.[0] ?? line;
}
