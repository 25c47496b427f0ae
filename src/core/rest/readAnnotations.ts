import { isData, listMember, member, textMember } from "../text/parseData.js";

export interface Annotations {
  readonly description?: string;
  /** Reason for the deprecation, "" when only the mark is given. */
  readonly deprecated?: string;
  /** The first example given. */
  readonly example?: unknown;
}

/** Description and deprecation of a schema, parameter, operation or response. */
export function readAnnotations(node: unknown): Annotations {
  if (!isData(node)) return {};
  const found: { -readonly [K in keyof Annotations]: Annotations[K] } = {};
  const example = member(node, "example") ?? listMember(node, "examples")?.[0];
  if (example !== undefined) found.example = example;
  const description = (textMember(node, "description") ?? textMember(node, "title"))?.trim();
  if (description) found.description = description;
  if (member(node, "deprecated") === true) found.deprecated = "";
  return found;
}
