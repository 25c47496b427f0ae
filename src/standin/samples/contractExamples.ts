import type { Content } from "../../core/contract/model.js";
import { pointerTokens } from "../../core/problem/place.js";
import { pointerInLinked } from "../../core/rest/linkDocuments.js";
import { isData, member } from "../../core/text/parseData.js";

/**
 * Returns the contract's example for a content (OpenAPI 3.1, section 4.8.14: `example`, `examples`): the named one, or
 * the first.
 *
 * @param raw the parsed contract document
 */
export function contentExample(raw: unknown, content: Content, name: string | undefined): unknown {
  const pointer = pointerInLinked(content.schema, raw);
  if (!pointer.endsWith("/schema")) return undefined;
  const holder = valueAt(raw, pointerTokens(pointer.slice(0, -"/schema".length)));
  if (!isData(holder)) return undefined;
  const examples = member(holder, "examples");
  if (isData(examples)) {
    // 2.0 has examples by media type, next to the schema.
    const direct = member(examples, content.mediaType);
    if (direct !== undefined && name === undefined) return direct;
    const chosen = name === undefined ? Object.values(examples)[0] : member(examples, name);
    const target = isData(chosen) && typeof chosen["$ref"] === "string" ? followed(raw, chosen["$ref"]) : chosen;
    if (isData(target) && target["value"] !== undefined) return target["value"];
  }
  return name === undefined ? member(holder, "example") : undefined;
}

function followed(raw: unknown, reference: string): unknown {
  return reference.startsWith("#") ? valueAt(raw, pointerTokens(decodeURIComponent(reference.slice(1)))) : undefined;
}

function valueAt(raw: unknown, tokens: readonly string[]): unknown {
  let node = raw;
  for (const token of tokens)
    node = Array.isArray(node) ? (node as unknown[])[Number(token)] : isData(node) ? member(node, token) : undefined;
  return node;
}
