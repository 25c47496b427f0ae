import type { Content, MediaForm, Reference, Shape } from "../contract/model.js";
import { isStream } from "../contract/model.js";
import { resolveReference, type TypeTable } from "../contract/resolveShape.js";
import { sameReference } from "../contract/sameShape.js";
import type { TypePlanner } from "./typePlanner.js";

const formsByPreference: readonly MediaForm[] = [
  "json",
  "multipart",
  "urlencoded",
  "events",
  "lines",
  "sequence",
  "text",
  "bytes",
];

/** Returns the content that a call uses if a contract offers several: the one that clients handle best. */
export function preferredContent(contents: readonly Content[]): Content | undefined {
  for (const form of formsByPreference) {
    const found = contents.find((content) => content.form === form);
    if (found) return found;
  }
  return undefined;
}

/**
 * Returns the contents that are worth choosing from, the preferred one first. Another name for the same JSON is not one
 * of them, and neither is a serialisation (plain text, XML) of values that the preferred one has as typed values.
 * Streams are calls of their own.
 */
export function offeredContents(contents: readonly Content[], types: TypeTable): Content[] {
  const preferred = preferredContent(contents);
  if (!preferred) return [];
  if (isStream(preferred.form)) return [preferred];
  const offered = [preferred];
  for (const content of contents) {
    if (content === preferred || isStream(content.form) || content.mediaType.includes("*")) continue;
    const { kind } = resolveReference(content.type, types).shape;
    const isStructured = kind === "record" || kind === "list" || kind === "map" || kind === "union";
    const isSaidBetter = offered.some(
      (known) =>
        (known.form === content.form || (content.form === "text" && isStructured)) &&
        sameReference(known.type, content.type),
    );
    const isNamed = offered.some((known) => known.mediaType === content.mediaType);
    if (!isSaidBetter && !isNamed) offered.push(content);
  }
  return offered;
}

/**
 * Returns the type of a content that its form allows: text is a string and bytes are bytes, whatever a schema for JSON
 * says about them.
 */
function typeByForm({ form, type }: Content, types: TypeTable): Reference {
  const { shape, nullable } = resolveReference(type, types);
  if (form === "bytes") return { shape: { kind: "bytes" }, nullable: false };
  if (form !== "text") return type;
  if (shape.kind !== "text" && !isTextChoice(shape)) return { shape: { kind: "text" }, nullable: false };
  // Text has no null. A name that allows null is replaced by its definition.
  return { shape: nullable ? shape : type.shape, nullable: false };
}

/** Returns whether every value of a shape is one of a few strings. */
export function isTextChoice(shape: Shape): boolean {
  return (
    (shape.kind === "literal" && typeof shape.value === "string") ||
    (shape.kind === "choice" && shape.values.every(({ value }) => typeof value === "string"))
  );
}

/**
 * Plans a content's type. Bytes are bytes in forms only, because JSON has none.
 *
 * @param direction whether the content is received or sent
 * @param name the name for an inline type: words, or a claimed name
 */
export function planContent(
  content: Content,
  direction: "answer" | "request",
  { name, planner }: { readonly name: readonly string[] | string; readonly planner: TypePlanner },
): Reference {
  const reference = typeByForm(content, planner.table);
  if (content.form === "bytes") return reference;
  const isForm = content.form === "multipart" || content.form === "urlencoded";
  const planned = planner.reference(reference, isForm ? "form" : direction, name);
  return isStream(content.form) && direction === "request"
    ? { shape: { kind: "list", item: planned }, nullable: false }
    : planned;
}
