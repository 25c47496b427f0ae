import type { Words } from "../../../sdk/lower/documentation.js";
import { blockComment } from "../../blockComment.js";
import { hideSecrets } from "../../../text/secrets.js";
import { escapes, replaceHidden } from "../../../text/visible.js";

/** The only ways for contract text into Kotlin. Contracts are untrusted, so no text can end any of these. */

/** Returns a string literal. Nothing in it is a template, and invisible characters are escaped. */
export function quoted(text: string): string {
  if (/^[\w .,:/{}+*-]*$/.test(text)) return `"${text}"`;
  const safe = text.replace(/[\\"$\n\r\t]/g, (character) => shortEscapes[character] ?? `\\${character}`);
  return `"${replaceHidden(safe, escapes).replace(loneHalves, escapes)}"`;
}

const shortEscapes: Readonly<Record<string, string>> = { "\n": "\\n", "\r": "\\r", "\t": "\\t" };

/** Half of a character has no bytes in a source file. */
const loneHalves = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/**
 * Returns a doc comment; "" without words. Contract text can neither close the comment nor open another one inside it,
 * which Kotlin would require to be closed too. It contains no tags.
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

/** Returns a doc comment of our own words, or of a contract's. */
export function comment(...paragraphs: readonly (string | undefined)[]): string {
  return docComment({ paragraphs });
}

/**
 * Returns the deprecation annotation; "" if there is no deprecation.
 *
 * @param reason undefined if it is not deprecated
 */
export function deprecation(reason: string | undefined, indent = ""): string {
  if (reason === undefined) return "";
  const said = hideSecrets(reason.trim().replace(/\s+/g, " "));
  return `${indent}@Deprecated(${quoted(said === "" ? "The contract marks it as deprecated." : said)})\n`;
}

/** Text inside a comment. */
function commentText(text: string): string {
  // A search for what is rare costs a fraction of replacing it.
  if (/^[\w .,;:'"()=+<>?!`-]*$/.test(text)) return text;
  const safe = text
    .replace(/\*(?=\/)/g, "* ")
    .replace(/\/(?=\*)/g, "/ ")
    .replace(/^(\s*)@(?=\w)/, "$1`@`");
  return replaceHidden(safe, () => " ").replace(loneHalves, " ");
}
