import { capital } from "../text/capital.js";
import { hideSecrets } from "../text/secrets.js";
import { visible } from "../text/visible.js";
import { levels, worst, type Level } from "../change/verdict.js";
import { isHeld, type Gate } from "../change/judge/gate.js";
import type { Served } from "../change/judge/releasedUsers.js";
import type { ContractImpact, Hit } from "../change/judge/judgedChange.js";
import { impactSummary, knowsUse, needsSummary, type KindOfChange } from "./impactSummary.js";
import { joinedChanges, type JoinedChange } from "./joinedChanges.js";
import { counted } from "./paint.js";
import { impactHeadline, unknownUse, type ImpactTexts } from "./renderImpact.js";
import { servedText, usersText } from "./usersText.js";
import { placeText } from "./renderProblem.js";

const hitsShown = 8;

/** The largest number of characters in a comment of a review. */
export const longestComment = 65_536;

/**
 * Returns the report of `impact` as Markdown, for a comment on a pull request: counts if there is much to show, the
 * changes that fail the gate, then the rest, folded. Parts that do not fit into a comment are counted.
 */
export function impactMarkdown(
  impacts: readonly ContractImpact[],
  texts: ImpactTexts,
  { gate, served }: Reporting,
): string {
  const room = new Room(longestComment - roomForEnds * (impacts.length + 1));
  const parts = [`## ${escaped(impactHeadline(impacts))}\n\n`, needsSummary(impacts) ? summaryPart(impacts) : ""];
  for (const part of parts) room.take(part);
  // Changes that fail come first everywhere, so that only others are left out.
  const held = impacts.map((impact) => heldPart(impact, texts, { gate, room }));
  const others = impacts.map((impact) => othersPart(impact, texts, { gate, room }));
  const end = served
    ? `\n${servedText(served)
        .map((line) => `${capital(escaped(line))}.`)
        .join(" ")}\n`
    : "";
  return `${parts.join("")}${impacts.map((_, at) => `${held[at] ?? ""}${others[at] ?? ""}`).join("\n")}${end}`;
}

/** The parts of a report besides its impacts. */
export interface Reporting {
  readonly gate: Gate;
  readonly served?: Served | undefined;
}

const roomForEnds = 400;

/** The remaining space of a comment. */
class Room {
  constructor(private left: number) {}

  /** Returns whether a text fits, and if so, subtracts its length. */
  take(text: string): boolean {
    if (text.length > this.left) return false;
    this.left -= text.length;
    return true;
  }

  /** Returns as many items as fit, and a sentence that counts the others. */
  fill(items: readonly string[]): string {
    const fitting = items.findIndex((item) => !this.take(item));
    if (fitting < 0) return items.join("");
    const left = counted(items.length - fitting, "more entry", "more entries");
    return `${items.slice(0, fitting).join("")}\n${left} did not fit into the comment. \`rhema impact --report html\` shows all.\n`;
  }
}

function summaryPart(impacts: readonly ContractImpact[]): string {
  const { clocks, kinds, knowsUse: isUseKnown } = impactSummary(impacts);
  const cell = (clock: "code" | "apps", level: Level): string => {
    const { used, all } = clocks[clock];
    return isUseKnown ? `${String(used[level])} of ${String(all[level])}` : String(all[level]);
  };
  const row = (title: string, clock: "code" | "apps"): string =>
    `| ${title} | ${levels.map((level) => cell(clock, level)).join(" | ")} |\n`;
  const kind = ({ code: name, title, count, used }: KindOfChange): string =>
    `- ${isUseKnown ? `${String(used)} of ${String(count)}` : String(count)}: ${escaped(title)} ${code(name)}\n`;
  const left = kinds.slice(kindsShown).reduce((sum, { count }) => sum + count, 0);
  return [
    `| ${isUseKnown ? "in use, of all" : ""} | ${levels.join(" | ")} |\n|---|---|---|---|\n`,
    row("your code", "code"),
    row("released apps", "apps"),
    "\n",
    ...kinds.slice(0, kindsShown).map(kind),
    left > 0 ? `- and ${counted(left, "change")} of other kinds\n` : "",
    "\n",
  ].join("");
}

const kindsShown = 8;

function heldPart(
  impact: ContractImpact,
  texts: ImpactTexts,
  { gate, room }: { readonly gate: Gate; readonly room: Room },
): string {
  const title = `### ${escaped(impact.contract)}: ${escaped(impact.from)} to ${escaped(impact.to)}\n\n`;
  room.take(title);
  if (impact.changes.length === 0) return `${title}No change of meaning.\n`;
  const held = joinedChanges(impact.changes.filter((change) => isHeld(change, gate)));
  const refused = impact.brokenQueries.map((problem) => {
    const [place] = problem.places;
    return `- ${escaped(problem.message)}${place ? ` (${code(placeText(place, texts.before))})` : ""}\n`;
  });
  return (
    title +
    (knowsUse(impact.changes) ? "" : `${capital(unknownUse(impact))}.\n\n`) +
    room.fill(held.map((change) => changeItem(change, texts, knowsUse(impact.changes)))) +
    (refused.length > 0 ? `\nQueries the new contract refuses:\n\n${room.fill(refused)}` : "")
  );
}

function othersPart(
  impact: ContractImpact,
  texts: ImpactTexts,
  { gate, room }: { readonly gate: Gate; readonly room: Room },
): string {
  const others = impact.changes.filter((change) => !isHeld(change, gate));
  if (others.length === 0) return "";
  const items = joinedChanges(others).map((change) => changeItem(change, texts, knowsUse(impact.changes)));
  return `\n<details><summary>${counted(others.length, "other change")}</summary>\n\n${room.fill(items)}\n</details>\n`;
}

function changeItem(change: JoinedChange, texts: ImpactTexts, isUseKnown: boolean): string {
  const { verdict } = change;
  const mark = { breaking: "**breaking**", risky: "risky", compatible: "compatible" }[worst(verdict)];
  const hits = change.hits.slice(0, hitsShown).map((hit) => hitItem(hit, texts));
  const more = change.hits.length - hits.length;
  return (
    `- ${mark} ${escaped(change.message)} ${code(change.code)}, code ${verdict.code}, apps ${verdict.apps}${change.use === "used" || !isUseKnown ? "" : `, ${change.use}`}\n` +
    (change.users ? `  - ${escaped(usersText(change.users))}\n` : "") +
    hits.join("") +
    (more > 0 ? `  - and ${counted(more, "more place")}\n` : "") +
    (change.hint === undefined || change.use === "not used" ? "" : `  - ${escaped(change.hint)}\n`)
  );
}

function hitItem(hit: Hit, texts: ImpactTexts): string {
  return `  - ${code(placeText(hit.place, texts.before))} ${hit.kind} ${hit.isInSource === true ? "" : "in "}${code(hit.owner)}\n`;
}

/** Contract text on a line: it cannot open HTML, a link or a mention. */
function escaped(text: string): string {
  // Once escaped, an address is no longer recognised, so secrets are hidden first.
  return visible(hideSecrets(text.replace(/\s+/g, " ")))
    .split(/(`[^`]*`)/)
    .map((part) => (/^`[^`]*`$/.test(part) ? code(part.slice(1, -1)) : part.replace(/[\\`*_[\]<>|#@]/g, "\\$&")))
    .join("");
}

function code(text: string): string {
  return `\`${visible(text.replace(/\s+/g, " ")).replaceAll("`", "'")}\``;
}
