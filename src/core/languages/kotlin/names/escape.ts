import type { Words } from "../../../sdk/lower/documentation.js";
import { blockComment } from "../../blockComment.js";
import { hideSecrets } from "../../../text/secrets.js";
import { escapes, replaceHidden } from "../../../text/visible.js";

/**
 * The only ways contract text gets into Kotlin. Contracts are untrusted: none of these can be left by anything the text
 * holds.
 */

/** A string literal. Nothing in it is a template, and characters that nobody sees are written as escapes. */
export function quoted(text: string): string {
  if (/^[\w .,:/{}+*-]*$/.test(text)) return `"${text}"`;
  const safe = text.replace(/[\\"$\n\r\t]/g, (character) => shortEscapes[character] ?? `\\${character}`);
  return `"${replaceHidden(safe, escapes).replace(loneHalves, escapes)}"`;
}

const shortEscapes: Readonly<Record<string, string>> = { "\n": "\\n", "\r": "\\r", "\t": "\\t" };

/** Halves of characters have no bytes in a source file. */
const loneHalves = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/**
 * A doc comment of what is said about something; "" when that is nothing. A text can neither close the comment nor open
 * another one inside it, which Kotlin would want closed too; and no tag is one.
 *
 * @param tags lines of our own that begin with a tag
 */
export function docComment({ paragraphs }: Words, indent = "", tags: readonly string[] = []): string {
  const lines: string[] = [];
  for (const paragraph of paragraphs) {
    if (paragraph === undefined) continue;
    const said = hideSecrets(paragraph.trim());
    if (said === "") continue;
    if (lines.length > 0) lines.push("");
    const all = /[\n\r\u2028\u2029]/.test(said) ? said.split(/\r\n|[\n\r\u2028\u2029]/) : [said];
    for (const line of all) lines.push(commentText(line).trimEnd());
  }
  if (tags.length > 0) lines.push(...(lines.length > 0 ? [""] : []), ...tags);
  return blockComment(lines, indent);
}

/** A doc comment of our own words, or of a contract's. */
export function comment(...paragraphs: readonly (string | undefined)[]): string {
  return docComment({ paragraphs });
}

/** The annotation that tells why something should not be used any more; "" where it may be. */
export function deprecation(reason: string | undefined, indent = ""): string {
  if (reason === undefined) return "";
  const said = hideSecrets(reason.trim().replace(/\s+/g, " "));
  return `${indent}@Deprecated(${quoted(said === "" ? "The contract marks it as deprecated." : said)})\n`;
}

/** Text that stands inside a comment. */
function commentText(text: string): string {
  // Looking for what is rarely there costs a fraction of replacing it.
  if (/^[\w .,;:'"()=+<>?!`-]*$/.test(text)) return text;
  const safe = text
    .replace(/\*(?=\/)/g, "* ")
    .replace(/\/(?=\*)/g, "/ ")
    .replace(/^(\s*)@(?=\w)/, "$1`@`");
  return replaceHidden(safe, () => " ").replace(loneHalves, " ");
}
