import type { Words } from "../../../sdk/lower/documentation.js";
import { hideSecrets } from "../../../text/secrets.js";
import { replaceHidden } from "../../../text/visible.js";

/** The only ways for contract text into Swift. Contracts are untrusted, so no text can end any of these. */

/** Returns a string literal. Nothing in it is an interpolation, and invisible characters are escaped. */
export function quoted(text: string): string {
  if (/^[\w .,:/{}+*-]*$/.test(text)) return `"${text}"`;
  const safe = text
    .replace(loneHalves, "\ufffd")
    .replace(/[\\"\n\r\t]/g, (character) => shortEscapes[character] ?? `\\${character}`);
  return `"${replaceHidden(safe, scalarEscapes)}"`;
}

const shortEscapes: Readonly<Record<string, string>> = { "\n": "\\n", "\r": "\\r", "\t": "\\t" };

function scalarEscapes(text: string): string {
  return Array.from(text, (character) => `\\u{${(character.codePointAt(0) ?? 0).toString(16)}}`).join("");
}

/** A Swift string cannot contain half of a character. */
const loneHalves = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Returns a doc comment; "" without words. Each line of it is a comment of its own. */
export function docComment({ paragraphs }: Words, indent = "", more: readonly string[] = []): string {
  const lines: string[] = [];
  for (const paragraph of paragraphs) {
    if (paragraph === undefined) continue;
    const said = hideSecrets(paragraph.trim());
    if (said === "") continue;
    if (lines.length > 0) lines.push("");
    const all = /^[ -~]*$/.test(said) ? [said] : said.split(/\r\n|[\n\r\v\f\u0085\u2028\u2029]/);
    for (const line of all) lines.push(commentText(line).trimEnd());
  }
  if (more.length > 0) lines.push(...(lines.length > 0 ? [""] : []), ...more);
  return lines.map((line) => `${indent}///${line === "" ? "" : ` ${line}`}\n`).join("");
}

/** Returns the lines of a doc comment for parameters. Parameters without words have none. */
export function parameterLines(
  parameters: readonly { readonly name: string; readonly words: readonly (string | undefined)[] }[],
): string[] {
  const told = parameters.flatMap(({ name, words }) => {
    const said = words.map((each) => each?.trim().replace(/\s+/g, " ") ?? "").filter((each) => each !== "");
    return said.length === 0 ? [] : [`${name}: ${commentText(hideSecrets(said.join(" ")))}`];
  });
  if (told.length < 2) return told.map((each) => `- Parameter ${each}`);
  return ["- Parameters:", ...told.map((each) => `  - ${each}`)];
}

/** Returns a doc comment of our own words, or of a contract's. */
export function comment(indent: string, ...paragraphs: readonly (string | undefined)[]): string {
  return docComment({ paragraphs }, indent);
}

/**
 * Returns the deprecation attribute; "" if there is no deprecation.
 *
 * @param reason undefined if it is not deprecated
 */
export function deprecation(reason: string | undefined, indent = ""): string {
  if (reason === undefined) return "";
  const said = hideSecrets(reason.trim().replace(/\s+/g, " "));
  return `${indent}@available(*, deprecated, message: ${quoted(said === "" ? "The contract marks it as deprecated." : said)})\n`;
}

/** Text inside a comment. */
function commentText(text: string): string {
  // A search for what is rare costs a fraction of replacing it.
  return /^[ -~]*$/.test(text) ? text : replaceHidden(text, () => " ").replace(loneHalves, " ");
}

/**
 * Returns a string literal of several lines. @param indent the indentation of the lines, and of the end of the literal
 */
export function multiline(text: string, indent: string): string {
  const lines = text
    .replace(loneHalves, "\ufffd")
    .replace(/[\\"]/g, (character) => `\\${character}`)
    .split("\n")
    .map((line) => replaceHidden(line, scalarEscapes));
  return `"""\n${lines.map((line) => (line === "" ? "" : indent + line)).join("\n")}\n${indent}"""`;
}
