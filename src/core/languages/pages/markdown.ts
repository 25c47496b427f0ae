import { hideSecrets } from "../../text/secrets.js";
import { replaceHidden, visibleLines } from "../../text/visible.js";

/** A block of code in a language as Markdown calls it; nothing in it can end it. */
export function codeBlock(text: string, language: string): string {
  const longest = Math.max(2, ...[...text.matchAll(/`{3,}/g)].map(([ticks]) => ticks.length));
  const fence = "`".repeat(longest + 1);
  return `${fence}${language}\n${visibleLines(text)}\n${fence}\n`;
}

/** Code on a line; what would end it is replaced. */
export function codeSpan(text: string): string {
  if (/^[\w .,;:'"(){}<>=|/?-]*$/.test(text) && !text.includes("  ")) return `\`${text}\``;
  return `\`${replaceHidden(text.replace(/\s+/g, " "), () => "·").replaceAll("`", "'")}\``;
}

/** Contract text on one line of Markdown: nothing in it can open HTML, a code span or a new block. */
export function oneLine(text: string): string {
  const [first = ""] = blocksOf(hideSecrets(text));
  return escapedLine(first);
}

/** The blocks of a text that blank lines keep apart. */
function blocksOf(text: string): string[] {
  const trimmed = text.trim();
  return trimmed.includes("\n") ? trimmed.split(/\n\s*\n/) : [trimmed];
}

// Looking for what is rarely there costs a fraction of replacing it.
function escapedLine(text: string): string {
  if (/^[\w .,;:'()-]*$/.test(text) && !text.includes("  "))
    return text.includes("_") ? text.replaceAll("_", "\\_") : text;
  const line = /[^\S ]| {2}/.test(text) ? text.replace(/\s+/g, " ") : text;
  return replaceHidden(line, () => "").replace(/[\\`*_[\]<>|#]/g, "\\$&");
}

/** Contract text as paragraphs, each on a line of its own. */
export function paragraphs(text: string | undefined): string {
  if (text === undefined) return "";
  return blocksOf(text)
    .map(oneLine)
    .filter((part) => part !== "")
    .map((part) => `${part}\n\n`)
    .join("");
}

/** A list below a title; "" without any rows. */
export function section(title: string, rows: readonly string[]): string {
  return rows.length === 0 ? "" : `${title}:\n\n${rows.map((row) => `- ${row}\n`).join("")}\n`;
}
