import { isData, listMember, member, textMember, type Data } from "../../text/parseData.js";

export interface Annotations {
  readonly description?: string;
  /** Reason for the deprecation, "" when only the mark is given. */
  readonly deprecated?: string;
  /** The first example given. */
  readonly example?: unknown;
}

type MutableAnnotations = { -readonly [K in keyof Annotations]: Annotations[K] };

/** Description and deprecation of a schema, parameter, operation or response. */
export function readAnnotations(node: unknown): Annotations {
  const found: MutableAnnotations = {};
  if (isData(node)) annotate(found, node);
  return found;
}

/** Puts description, deprecation and example on what was read of a node. */
export function annotate(found: MutableAnnotations, node: Data): void {
  const example = member(node, "example") ?? listMember(node, "examples")?.[0];
  if (example !== undefined) found.example = example;
  const description = (textMember(node, "description") ?? textMember(node, "title"))?.trim();
  if (description) found.description = description;
  if (member(node, "deprecated") === true) found.deprecated = "";
}
