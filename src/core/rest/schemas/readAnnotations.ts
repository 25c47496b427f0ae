import { isData, listMember, member, textMember, type Data } from "../../text/parseData.js";

export interface Annotations {
  readonly description?: string;
  /** The reason for the deprecation, "" if there is only the mark. */
  readonly deprecated?: string;
  /** The first example. */
  readonly example?: unknown;
}

type MutableAnnotations = { -readonly [K in keyof Annotations]: Annotations[K] };

/** Reads the description and deprecation of a schema, parameter, operation or response. */
export function readAnnotations(node: unknown): Annotations {
  const found: MutableAnnotations = {};
  if (isData(node)) annotate(found, node);
  return found;
}

/**
 * Adds the description, deprecation and example of a node to what was read from it.
 *
 * @param found changed in place
 */
export function annotate(found: MutableAnnotations, node: Data): void {
  const example = member(node, "example") ?? listMember(node, "examples")?.[0];
  if (example !== undefined) found.example = example;
  const description = (textMember(node, "description") ?? textMember(node, "title"))?.trim();
  if (description) found.description = description;
  if (member(node, "deprecated") === true) found.deprecated = "";
}
