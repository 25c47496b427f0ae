import { weight, worst, type Level } from "../change/verdict.js";
import { groupedBy } from "../text/groupedBy.js";
import { breaksProject, type ContractImpact, type Hit, type JudgedChange } from "../change/judge/judgedChange.js";
import type { Place } from "../problem/place.js";
import type { CompileError } from "../use/compileError.js";
import { visible } from "../text/visible.js";
import { headingIn } from "./changeHeading.js";
import { isNotable, knowsUse, needsSummary } from "./impactSummary.js";
import { joinedChanges, type JoinedChange } from "./joinedChanges.js";
import { levelMark } from "./levelMark.js";
import { counted, wrap, type Paint } from "./paint.js";
import { placeText, renderProblem } from "./renderProblem.js";
import { renderSummary } from "./renderSummary.js";
import { usersText } from "./usersText.js";
import type { ShownTexts } from "../problem/shownTexts.js";

const width = 80;
const hitsShown = 4;
const itemsShown = 8;
const mostErrorLines = 3;

export interface ImpactTexts {
  /** The texts of the old contract and of the project's own files. */
  readonly before: ShownTexts;
  readonly after: ShownTexts;
}

/** Returns the verdict on all contracts in one line of at most 80 columns. */
export function impactHeadline(impacts: readonly ContractImpact[]): string {
  const changes = impacts.flatMap((impact) => impact.changes);
  const breaking = changes.filter(breaksProject);
  const refused = impacts.flatMap(({ brokenQueries }) => brokenQueries).length;
  const refusals = `${counted(refused, "query", "queries")} refused`;
  const all = counted(changes.length, "change");
  if (breaking.length > 0)
    return `impact: ${String(breaking.length)} of ${all} can break this project${refused > 0 ? `, ${refusals}` : ""}`;
  if (refused > 0) return `impact: ${refusals} after ${all}`;
  return changes.length === 0 ? "impact: nothing changed" : `impact: ${all}, none breaks what you use`;
}

/**
 * Returns the report of `impact`: one block for each contract, with its changes grouped by what they break, those in
 * use first. Changes of unused parts are only counted.
 *
 * @param all also list changes of unused parts
 */
export function renderImpact(
  impacts: readonly ContractImpact[],
  texts: ImpactTexts,
  { paint, all }: { readonly paint: Paint; readonly all: boolean },
): string[] {
  // A large contract has more rows than a function can have arguments.
  const blocks = impacts.flatMap((impact) => ["", ...renderContract(impact, texts, { paint, all })]);
  const summary = needsSummary(impacts) ? ["", ...renderSummary(impacts, texts.before, paint)] : [];
  return [paint.strong(impactHeadline(impacts)), ...summary, ...blocks];
}

/** The compile errors of an app, apart from those of changes. */
export interface CompiledApp {
  /** New errors that no change explains. */
  readonly unexplained: readonly CompileError[];
  /** Errors that already existed. */
  readonly before: readonly CompileError[];
  /** SDKs in a language without a compiler to run. */
  readonly unproved: readonly string[];
}

/**
 * Returns the compile errors apart from those of changes: errors that no change explains, and errors that already
 * existed.
 */
export function renderProof(
  { unexplained, before, unproved }: CompiledApp,
  impacts: readonly ContractImpact[],
  { texts, paint }: { readonly texts: ShownTexts; readonly paint: Paint },
): string[] {
  const errors = impacts.flatMap((impact) => impact.changes.flatMap((change) => change.errors ?? []));
  const headline =
    errors.length + unexplained.length === 0
      ? "compile check: your app compiles against the new SDK as before"
      : `compile check: ${counted(errors.length + unexplained.length, "new compile error")}, ${String(errors.length)} explained by a change`;
  const rows = ["", paint.strong(headline)];
  if (unexplained.length > 0) rows.push("  errors that no change explains", ...errorRows(unexplained, texts, paint));
  if (before.length > 0)
    rows.push(
      `  ${counted(before.length, "error")} that ${before.length === 1 ? "was" : "were"} there before`,
      ...errorRows(before, texts, paint),
    );
  if (unproved.length > 0) rows.push(`  cannot tell for ${unproved.join(", ")}: there is no compiler for them`);
  return rows;
}

function renderContract(
  impact: ContractImpact,
  texts: ImpactTexts,
  { paint, all }: { readonly paint: Paint; readonly all: boolean },
): string[] {
  const rows = [`${paint.strong(impact.contract)}  ${paint.quiet(`${impact.from} -> ${impact.to}`)}`];
  if (impact.changes.length === 0) return [...rows, "  no change of meaning"];
  const shown = impact.changes.filter((change) => all || isNotable(change));
  // Without an app, one line reports for all changes that their use is unknown.
  const isUseKnown = knowsUse(impact.changes);
  if (!isUseKnown) rows.push(`  ${paint.quiet(unknownUse(impact))}`);
  for (const [heading, group] of groupedBy(joinedChanges(shown), headingIn(impact))) {
    rows.push("", `  ${paint.accent(heading)}`);
    for (const change of group) rows.push(...renderChange(change, texts, { paint, isUseKnown }));
  }
  if (impact.brokenQueries.length > 0) {
    rows.push(
      "",
      `  ${paint.accent(`query documents the new contract refuses: ${String(impact.brokenQueries.length)}`)}`,
    );
    for (const problem of impact.brokenQueries)
      rows.push(...renderProblem(problem, texts.before, paint).map((line) => `    ${line}`));
  }
  const folded = impact.changes.length - shown.length;
  if (folded > 0)
    rows.push("", `  ${paint.quiet(foldedText(impact.changes.filter((change) => !shown.includes(change))))}`);
  return rows;
}

/** Returns the sentence for an impact in which no use is known. */
export function unknownUse({ isReleased }: ContractImpact): string {
  return isReleased === true
    ? "released apps: cannot tell whether they use any of this"
    : "your code: cannot tell whether it uses any of this";
}

function foldedText(changes: readonly JudgedChange[]): string {
  const unused = changes.filter((change) => change.use === "not used" && worst(change.verdict) !== "compatible").length;
  const harmless = changes.length - unused;
  const parts = [
    ...(unused > 0 ? [`${counted(unused, "change")} to what you do not use`] : []),
    ...(harmless > 0 ? [counted(harmless, "compatible change")] : []),
  ];
  return `and ${parts.join(", ")} (--all lists them)`;
}

function renderChange(
  change: JoinedChange,
  texts: ImpactTexts,
  { paint, isUseKnown }: { readonly paint: Paint; readonly isUseKnown: boolean },
): string[] {
  const rows = [
    `    ${levelMark(worst(change.verdict), paint)} ${paint.quiet(change.code)}  code ${levelWord(change.verdict.code, paint)}, apps ${levelWord(change.verdict.apps, paint)}`,
  ];
  const levels = new Set(change.sdks?.map(({ code }) => code));
  if (levels.size > 1) rows.push(`      ${paint.quiet("code by SDK:")} ${sdkLevels(change, paint)}`);
  rows.push(...wrap(visible(change.message), width - 6).map((line) => `      ${line}`));
  const places = [placeOn(change.before, texts.before), placeOn(change.after, texts.after)].filter(
    (text): text is string => text !== undefined,
  );
  if (places.length > 0) rows.push(`      ${paint.quiet(`contract  ${places.join(" -> ")}`)}`);
  if (change.differ === "types")
    rows.push(...listRows("types", change.items).map((line) => `      ${paint.quiet(line)}`));
  if (change.operations.length > 1)
    rows.push(...listRows("operations", change.operations).map((line) => `      ${paint.quiet(line)}`));
  let last: string | undefined;
  for (const hit of change.hits.slice(0, hitsShown)) {
    rows.push(
      `      ${paint.strong(placeText(hit.place, texts.before))}  ${hit.kind} ${paint.quiet(hitOwner(hit, change))}`,
    );
    const line = hit.isInSource === true ? sourceLine(hit.place, texts.before) : undefined;
    if (line !== undefined && line !== last) rows.push(`        ${paint.quiet(line)}`);
    last = line;
  }
  if (change.hits.length > hitsShown)
    rows.push(`      ${paint.quiet(`and ${counted(change.hits.length - hitsShown, "more place")}`)}`);
  rows.push(...errorRows(change.errors ?? [], texts.before, paint));
  if (change.users) rows.push(...wrap(usersText(change.users), width - 6).map((line) => `      ${paint.warn(line)}`));
  if (change.leveled !== undefined)
    rows.push(
      ...wrap(`rated in the configuration: ${visible(change.leveled)}`, width - 6).map(
        (line) => `      ${paint.quiet(line)}`,
      ),
    );
  if (change.accepted)
    rows.push(
      ...wrap(`accepted until ${change.accepted.until}: ${visible(change.accepted.reason)}`, width - 6).map(
        (line) => `      ${paint.good(line)}`,
      ),
    );
  if (change.use === "cannot tell" && isUseKnown)
    rows.push(`      ${paint.quiet("your code: cannot tell whether it uses this")}`);
  if (change.use === "not used") rows.push(`      ${paint.quiet("your code: does not use this")}`);
  if (change.hint !== undefined && change.use !== "not used")
    rows.push(...wrap(`-> ${change.hint}`, width - 6, "   ").map((line) => `      ${paint.good(line)}`));
  return rows;
}

/** A list whose lines never break inside an item. */
function listRows(title: string, all: readonly string[]): string[] {
  const left = all.length - itemsShown;
  const glued = [
    ...all.slice(0, itemsShown).map((label) => label.replace(" ", "\u00a0")),
    ...(left > 0 ? [`and\u00a0${String(left)}\u00a0more`] : []),
  ].join(", ");
  return wrap(`${title}\u00a0 ${glued}`, width - 6, " ".repeat(title.length + 2)).map((line) =>
    line.replaceAll("\u00a0", " "),
  );
}

/** The source line of a hit, with as much text around the place as fits. */
function sourceLine(place: Place, texts: ShownTexts): string | undefined {
  const text = texts.find(place.document)?.text;
  if (text === undefined || !("offset" in place)) return undefined;
  const start = text.lastIndexOf("\n", place.offset - 1) + 1;
  const end = text.indexOf("\n", place.offset);
  const whole = text.slice(start, end < 0 ? undefined : end);
  const line = whole.trim();
  const column = place.offset - start - (whole.length - whole.trimStart().length);
  const room = width - 10;
  const from = column < room - 20 ? 0 : Math.min(column - 20, Math.max(0, line.length - room));
  const shown = line.slice(from, from + room);
  return visible(`${from > 0 ? "…" : ""}${shown}${from + room < line.length ? "…" : ""}`);
}

function errorRows(errors: readonly CompileError[], texts: ShownTexts, paint: Paint): string[] {
  const rows = errors.slice(0, hitsShown).flatMap(({ place, code, message }) => {
    const [first = "", ...more] = wrap(`${code} ${visible(message)}`, width - 8).slice(0, mostErrorLines);
    return [
      `      ${paint.bad("does not compile")}  ${paint.strong(placeText(place, texts))}`,
      ...[first, ...more].map((line) => `        ${paint.quiet(line)}`),
    ];
  });
  const left = errors.length - Math.min(errors.length, hitsShown);
  return left > 0 ? [...rows, `      ${paint.quiet(`and ${counted(left, "more error")}`)}`] : rows;
}

function hitOwner(hit: Hit, change: JudgedChange): string {
  if (hit.isInSource === true) return hit.owner;
  if (hit.kind === "calls" || hit.owner === change.word) return hit.owner;
  const through = hit.operations.filter((operation) => operation !== hit.owner);
  return `in ${hit.owner}${through.length > 0 ? `, sent by ${through.join(", ")}` : ""}`;
}

function placeOn(place: Place | undefined, texts: ShownTexts): string | undefined {
  return place && place.document !== "" ? placeText(place, texts) : undefined;
}

/** The effect of a change for each SDK, those that are affected most first. */
function sdkLevels({ sdks = [] }: JudgedChange, paint: Paint): string {
  const sorted = [...sdks].sort((a, b) => weight[b.code] - weight[a.code]);
  return sorted.map(({ sdk, code }) => `${sdk} ${levelWord(code, paint)}`).join(", ");
}

function levelWord(level: Level, paint: Paint): string {
  return level === "breaking" ? paint.bad(level) : level === "risky" ? paint.warn(level) : level;
}
