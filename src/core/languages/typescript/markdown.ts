import type { RestPlan } from "../../sdk/sdkPlan.js";
import { mark } from "../../sdk/nameScope.js";
import { fileBase } from "../../text/fileBase.js";
import { hideSecrets } from "../../text/secrets.js";
import { replaceHidden, visibleLines } from "../../text/visible.js";

/** A block of code; nothing in it can end it. */
export function codeBlock(text: string, language: "ts" | "graphql" = "ts"): string {
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
  if (/^[\w .,;:'()-]*$/.test(text)) return text.includes("_") ? text.replaceAll("_", "\\_") : text;
  const [first = ""] = blocksOf(text);
  return escapedLine(first);
}

/** The blocks of a text that blank lines keep apart. */
function blocksOf(text: string): string[] {
  const trimmed = text.trim();
  return trimmed.includes("\n") ? trimmed.split(/\n\s*\n/) : [trimmed];
}

// Looking for what is rarely there costs a fraction of replacing it.
function escapedLine(text: string): string {
  const line = /[^\S ]| {2}/.test(text) ? text.replace(/\s+/g, " ") : text;
  return replaceHidden(hideSecrets(line), () => "").replace(/[\\`*_[\]<>|#]/g, "\\$&");
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

/** The file name of a group of calls, without its ending. */
export function groupFile(group: string): string {
  return fileBase(group, mark) || "calls";
}

/** Where the page of a group is, seen from the SDK's folder. */
export function pagePath(plan: RestPlan, group: string): string {
  return `${plan.name}/calls/${groupFile(group)}.md`;
}

/** A group's name below those of the tags it stands under. */
export function groupTitle(plan: RestPlan, group: string): string {
  return [...ancestors(group, plan.tags), group].map(oneLine).join(" / ");
}

/** The tags that a tag stands below, outermost first; a circle of parents ends where it closes. */
function ancestors(tag: string, tags: RestPlan["tags"]): string[] {
  const found: string[] = [];
  for (let parent = tags.get(tag)?.parent; parent !== undefined; parent = tags.get(parent)?.parent) {
    if (parent === tag || found.includes(parent)) break;
    found.unshift(parent);
  }
  return found;
}
