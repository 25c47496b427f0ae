import type { Words } from "../../../sdk/lower/documentation.js";
import { blockComment } from "../../blockComment.js";
import { hideSecrets } from "../../../text/secrets.js";
import { escapes, replaceHidden } from "../../../text/visible.js";

/** The only ways for contract text into TypeScript. Contracts are untrusted, so no text can end any of these. */

/** Returns a string literal. Line separators and characters that hide or reorder text are escaped. */
export function quoted(text: string): string {
  if (/^[\w .,:/{}+*-]*$/.test(text)) return `"${text}"`;
  return replaceHidden(JSON.stringify(text), escapes);
}

/** Returns the inside of a template literal. */
export function templateText(text: string): string {
  const safe = text.replace(/\r\n?/g, "\n").replace(/[\\`]|\$(?=\{)/g, (character) => `\\${character}`);
  return replaceHidden(safe, (character) => (character === "\n" ? character : escapes(character)));
}

/** Returns a property name: bare if it is an identifier, otherwise quoted. */
export function propertyName(name: string): string {
  return isIdentifierName(name) ? name : quoted(name);
}

/** Returns a key of an object literal. A plain key `__proto__` would set the prototype. */
export function literalKey(name: string): string {
  return name === "__proto__" ? '["__proto__"]' : propertyName(name);
}

/** Returns the access of a property. */
export function propertyAccess(object: string, name: string): string {
  return isIdentifierName(name) ? `${object}.${name}` : `${object}[${quoted(name)}]`;
}

// `__proto__: x` in an object literal sets the prototype, quoted or not. In types this does not matter, and values
// never use it bare.
function isIdentifierName(name: string): boolean {
  if (/^[A-Za-z_$][\w$]*$/.test(name)) return true;
  return /^[\p{ID_Start}$_][\p{ID_Continue}$]*$/u.test(name);
}

/**
 * Returns a doc comment; "" without words. Contract text cannot close the comment, and cannot contain tags, because at
 * signs in it are escaped. The only tag is the one for deprecation.
 */
export function docComment({ paragraphs, deprecated }: Words, indent = ""): string {
  const lines: string[] = [];
  for (const paragraph of paragraphs) {
    if (paragraph === undefined) continue;
    const said = paragraph.trim();
    if (said === "") continue;
    if (lines.length > 0) lines.push("");
    lines.push(...commentLines(said));
  }
  if (deprecated !== undefined)
    lines.push(`@deprecated ${commentLines(deprecated.trim().replace(/\s+/g, " ")).join(" ")}`.trimEnd());
  return blockComment(lines, indent);
}

/** Returns a doc comment of our own words, or of a contract's. */
export function comment(...paragraphs: readonly (string | undefined)[]): string {
  return docComment({ paragraphs });
}

/** The lines of a text without white space around it. A secret may continue on the next line. */
function commentLines(text: string): string[] {
  const paragraph = hideSecrets(text);
  if (!/[\n\r\u2028\u2029]/.test(paragraph)) return [commentText(paragraph).trimEnd()];
  return paragraph.split(/\r\n|[\n\r\u2028\u2029]/).map((line) => commentText(line).trimEnd());
}

/** Text inside a comment. Tags of the contract's author (`@internal`) must not affect tools. */
function commentText(text: string): string {
  if (/^[\w .,;:'"()=+<>?!`-]*$/.test(text) && !text.includes("lint-") && !text.includes("prettier-")) return text;
  // A search for what is rare costs a fraction of replacing it.
  let safe = text.replaceAll("*/", "*\\/").replaceAll("/*", "/\\*");
  if (safe.includes("@")) safe = safe.replace(/(^|\s)@(?=[a-z])/gi, "$1\\@");
  if (safe.includes("lint-") || safe.includes("prettier-"))
    safe = safe.replace(/\b(eslint|tslint|prettier)-/g, "$1\u2010");
  return replaceHidden(safe, () => " ");
}
