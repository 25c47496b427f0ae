import { hideSecrets } from "../../text/secrets.js";
import { replaceHidden, visibleLines } from "../../text/visible.js";

/**
 * Returns a code block. No text can end it.
 *
 * @param language the language's name in Markdown
 */
export function codeBlock(text: string, language: string): string {
  const longest = Math.max(2, ...[...text.matchAll(/`{3,}/g)].map(([ticks]) => ticks.length));
  const fence = "`".repeat(longest + 1);
  return `${fence}${language}\n${visibleLines(text)}\n${fence}\n`;
}

/** Returns code within a line. Characters that would end it are replaced. */
export function codeSpan(text: string): string {
  if (/^[\w .,;:'"(){}<>=|/?-]*$/.test(text) && !text.includes("  ")) return `\`${text}\``;
  return `\`${replaceHidden(text.replace(/\s+/g, " "), () => "·").replaceAll("`", "'")}\``;
}

/** Returns text of a contract on one line of Markdown. It cannot open HTML, a code span or a new block. */
export function oneLine(text: string): string {
  const [first = ""] = blocksOf(hideSecrets(text));
  return escapedLine(first);
}

/** The blocks of a text between blank lines. */
function blocksOf(text: string): string[] {
  const trimmed = text.trim();
  return trimmed.includes("\n") ? trimmed.split(/\n\s*\n/) : [trimmed];
}

// A search for what is rare costs a fraction of replacing it.
function escapedLine(text: string): string {
  if (/^[\w .,;:'()-]*$/.test(text) && !text.includes("  "))
    return text.includes("_") ? text.replaceAll("_", "\\_") : text;
  const line = /[^\S ]| {2}/.test(text) ? text.replace(/\s+/g, " ") : text;
  return replaceHidden(line, () => "").replace(/[\\`*_[\]<>|#]/g, "\\$&");
}

/** Returns text of a contract as paragraphs, each on a line of its own. */
export function paragraphs(text: string | undefined): string {
  if (text === undefined) return "";
  return blocksOf(text)
    .map(oneLine)
    .filter((part) => part !== "")
    .map((part) => `${part}\n\n`)
    .join("");
}

/** Returns a list below a title; "" without any rows. */
export function section(title: string, rows: readonly string[]): string {
  return rows.length === 0 ? "" : `${title}:\n\n${rows.map((row) => `- ${row}\n`).join("")}\n`;
}
