import type { Advice } from "../outline/advice.js";
import type { Outline, OutlineDetail, OutlineEntry, OutlineUse } from "../outline/outline.js";
import type { Place } from "../problem/place.js";
import { visible } from "../text/visible.js";
import { counted, wrap, type Paint } from "./paint.js";
import { placeText } from "./renderProblem.js";
import type { ShownTexts } from "../problem/shownTexts.js";

const width = 80;
const mostTypes = 60;
const placesShown = 3;

/** How a reader sees an outline. */
export interface OutlineView {
  readonly texts: ShownTexts;
  readonly paint: Paint;
  /** Whether types are listed however many there are. */
  readonly isNarrowed: boolean;
}

/** Returns an outline as a tree, with a mark on parts in use. */
export function renderOutline(outline: Outline, { texts, paint, isNarrowed }: OutlineView): string[] {
  const entries = outline.groups.flatMap((group) => group.entries);
  const used = entries.filter(({ use }) => use === "used").length;
  const thing = outline.protocol === "rest" ? "operation" : "root field";
  const kind = outline.protocol === "rest" ? `REST ${outline.version}`.trim() : "GraphQL";
  const head = `outline: ${outline.contract}, ${kind}: ${counted(entries.length, thing)}, ${String(used)} used`;
  return [
    paint.strong(head),
    ...(outline.title === "" ? [] : wrap(visible(outline.title), width - 2).map((line) => `  ${paint.quiet(line)}`)),
    ...outline.groups.flatMap(({ name, summary, entries: members }) => [
      "",
      `  ${paint.accent(visible(name))}${summary === undefined ? "" : paint.quiet(`  ${cut(visible(summary), width - name.length - 4)}`)}`,
      ...members.flatMap((entry) => entryLines(entry, texts, paint)),
    ]),
    ...typeLines(outline, paint, isNarrowed),
    ...adviceLines(outline.advice, paint, isNarrowed),
    "",
    paint.quiet("  * used here, - not used, ? cannot tell; --about NAME shows one with everything"),
  ];
}

const marks: Readonly<Record<OutlineUse, string>> = { used: "*", "not used": "-", "cannot tell": "?" };

function mark(use: OutlineUse, paint: Paint): string {
  return use === "used" ? paint.good(marks[use]) : paint.quiet(marks[use]);
}

function entryLines(entry: OutlineEntry, texts: ShownTexts, paint: Paint): string[] {
  const { label, name, summary, deprecated, use, places } = entry;
  // A root field's name with its arguments contains all of its label.
  const isField = label.endsWith(`.${name.replace(/[(:].*$/s, "")}`);
  const short = `${visible(name)}  ${paint.quiet(visible(label))}`;
  const rest = [
    ...(deprecated === undefined ? [] : [`deprecated${deprecated === "" ? "" : `: ${deprecated}`}`]),
    ...(summary === undefined ? [] : [summary]),
  ].join(". ");
  const where = places.length > 0 ? placesText(places, texts, 1) : "";
  return [
    `  ${mark(use, paint)} ${isField ? wrap(visible(name), width - 4, "      ").join("\n") : short}`,
    ...(rest === "" ? [] : [`      ${paint.quiet(cut(visible(rest), width - 6))}`]),
    ...(where === "" ? [] : [`      ${paint.quiet("used at")} ${where}`]),
  ];
}

function placesText(places: readonly Place[], texts: ShownTexts, most: number): string {
  const shown = places.slice(0, most).map((place) => placeText(place, texts));
  const more = places.length - shown.length;
  return `${shown.join(", ")}${more > 0 ? ` and ${String(more)} more` : ""}`;
}

function typeLines({ types }: Outline, paint: Paint, isNarrowed: boolean): string[] {
  if (types.length === 0) return [];
  const used = types.filter(({ use }) => use === "used").length;
  const head = ["", `  ${paint.accent("types")}${paint.quiet(`  ${String(types.length)}, ${String(used)} used`)}`];
  if (types.length > mostTypes && !isNarrowed)
    return [...head, paint.quiet("    too many to list; `rhema outline --find TEXT` narrows them down")];
  const longest = Math.min(30, Math.max(...types.map(({ name }) => name.length)));
  return [
    ...head,
    ...types.map(({ name, what, summary, use }) => {
      const start = `${visible(name).padEnd(longest)}  ${what}`;
      const room = width - 4 - start.length - 2;
      const words = summary === undefined || room < 12 ? "" : paint.quiet(`  ${cut(visible(summary), room)}`);
      return `  ${mark(use, paint)} ${start}${words}`;
    }),
  ];
}

function adviceLines(advice: readonly Advice[], paint: Paint, isNarrowed: boolean): string[] {
  if (advice.length === 0 || isNarrowed) return [];
  return [
    "",
    `  ${paint.accent("for the contract's authors")}${paint.quiet("  small changes, better SDKs")}`,
    ...advice.flatMap(({ count, of, things, missing, gain, examples }) => [
      ...wrap(`${String(count)} of ${String(of)} ${things} have no ${missing}: ${gain}`, width - 4, "  ").map(
        (line) => `    ${line}`,
      ),
      `      ${paint.quiet(cut(visible(`${examples.join(", ")}${count > examples.length ? ", …" : ""}`), width - 6))}`,
    ]),
  ];
}

/** Returns one operation or type in full, with all types that it uses. */
export function renderDetail(
  detail: OutlineDetail & { readonly contract: string },
  { texts, paint }: OutlineView,
): string[] {
  const { title, contract, description, samples, lines, use, places, reachedBy, reaches } = detail;
  const used = {
    used: `used ${counted(places.length, "time")}`,
    "not used": "not used here",
    "cannot tell": "cannot tell whether it is used",
  };
  const block = (text: string): string[] =>
    text.split("\n").flatMap((line) => wrap(visible(line), width - 2).map((each) => `  ${each}`));
  return [
    `${paint.strong(`outline: ${title}`)}${paint.quiet(`  in ${contract}, ${used[use]}`)}`,
    ...(description === undefined ? [] : block(description.trim()).map(paint.quiet)),
    ...lines.map((line) => `    ${visible(line)}`),
    ...samples.flatMap(({ language, code }) => [
      `  ${paint.quiet(`in ${language}`)}`,
      ...code.split("\n").map((line) => `    ${paint.accent(visible(line))}`),
    ]),
    ...(places.length === 0 ? [] : [`  used at ${placesText(places, texts, placesShown)}`]),
    ...(reachedBy.length === 0
      ? []
      : wrap(`reached by ${reachedBy.join(", ")}`, width - 2, "  ").map((line) => `  ${line}`)),
    ...reaches.flatMap((type) => [
      "",
      `  ${paint.accent(visible(type.title))}`,
      ...type.lines.map((line) => `    ${visible(line)}`),
    ]),
  ];
}

function cut(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, Math.max(1, most - 1)).trimEnd()}…`;
}
