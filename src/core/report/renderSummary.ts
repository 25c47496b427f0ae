import { visible } from "../text/visible.js";
import type { ContractImpact } from "../change/judge/judgedChange.js";
import { levels, worst, type Level } from "../change/verdict.js";
import type { ShownTexts } from "../problem/shownTexts.js";
import { impactSummary, type Counts, type ImpactSummary } from "./impactSummary.js";
import type { JoinedChange } from "./joinedChanges.js";
import { levelMark } from "./levelMark.js";
import { counted, type Paint } from "./paint.js";
import { usersText } from "./usersText.js";
import { placeText } from "./renderProblem.js";

const width = 80;
const kindsShown = 8;
const entriesShown = 16;

/** Returns a summary for a team: counts by verdict and level, the kinds of changes, and one line for each break. */
export function renderSummary(impacts: readonly ContractImpact[], texts: ShownTexts, paint: Paint): string[] {
  const summary = impactSummary(impacts);
  return [...clockRows(summary, paint), "", ...kindRows(summary, paint), ...breakingRows(summary, texts, paint)];
}

function clockRows({ clocks, knowsUse }: ImpactSummary, paint: Paint): string[] {
  const cell = ({ used, all }: { readonly used: Counts; readonly all: Counts }, level: Level): string =>
    knowsUse ? `${String(used[level])} of ${String(all[level])}` : String(all[level]);
  const row = (title: string, clock: "code" | "apps"): string =>
    `  ${title.padEnd(22)}${levels.map((level) => cell(clocks[clock], level).padStart(14)).join("")}`;
  const title = knowsUse ? "in use, of all" : "";
  return [
    paint.quiet(`  ${title.padEnd(22)}${levels.map((level) => level.padStart(14)).join("")}`),
    row("your code", "code"),
    row("released apps", "apps"),
  ];
}

function kindRows({ kinds, knowsUse }: ImpactSummary, paint: Paint): string[] {
  const counts = kinds.map(({ count, used }) => (knowsUse ? `${String(used)} of ${String(count)}` : String(count)));
  const column = Math.max(...counts.map(({ length }) => length));
  const rows = kinds.slice(0, kindsShown).map(({ code, title, verdict }, at) => {
    const said = cut(title, width - column - code.length - 8);
    return `  ${levelMark(worst(verdict), paint)} ${(counts[at] ?? "").padStart(column)}  ${said}  ${paint.quiet(code)}`;
  });
  const left = kinds.slice(kindsShown);
  const rest = left.reduce((sum, { count }) => sum + count, 0);
  if (left.length === 0) return rows;
  return [...rows, `  ${paint.quiet(`and ${counted(rest, "change")} of ${counted(left.length, "other kind")}`)}`];
}

/** A text that fits into the space, cut between two words. */
function cut(text: string, room: number): string {
  if (text.length <= room) return text;
  const short = text.slice(0, room - 1);
  return `${short.slice(0, Math.max(short.lastIndexOf(" "), 1))}…`;
}

function breakingRows({ breaking, knowsUse }: ImpactSummary, texts: ShownTexts, paint: Paint): string[] {
  if (breaking.length === 0) return [];
  const left = breaking.length - entriesShown;
  return [
    "",
    `  ${paint.accent(knowsUse ? "what breaks and is in use" : "what breaks")}`,
    ...breaking.slice(0, entriesShown).map((change) => entryRow(change, texts, paint)),
    ...(left > 0 ? [`    ${paint.quiet(`and ${counted(left, "more entry", "more entries")}`)}`] : []),
  ];
}

function entryRow(change: JoinedChange, texts: ShownTexts, paint: Paint): string {
  const [hit] = change.hits;
  const more = change.hits.length - 1;
  const where = hit && `${placeText(hit.place, texts)}${more > 0 ? ` and ${String(more)} more` : ""}`;
  const said = change.users ? usersText(change.users) : where;
  const place = said === undefined ? "" : `  ${said}`;
  const message = visible(change.message);
  const room = width - 6;
  const shown = cut(message, room);
  const line = `    ${levelMark(worst(change.verdict), paint)} ${shown}`;
  return shown.length + place.length > room || place === "" ? line : `${line}${paint.quiet(place)}`;
}
