import type { ShownTexts } from "../../core/problem/shownTexts.js";
import { worst } from "../../core/change/verdict.js";
import { breaksProject, type ContractImpact } from "../../core/change/judge/judgedChange.js";
import type { Place } from "../../core/problem/place.js";
import { counted, wrap, type Paint } from "../../core/report/paint.js";
import { editorsPath } from "../../workspace/generate/editorsPath.js";
import type { ContractOutcome, GenerateOutcome, SdkOutcome } from "../../workspace/generate/generateOutcome.js";

/** Returns a place as text, "file:line:column". */
export type ShowPlace = (place: Place, texts: ShownTexts) => string;

/**
 * Returns the report of a run in a few aligned lines.
 *
 * @param elapsedMs the duration in milliseconds
 */
export function reportLines(
  outcome: GenerateOutcome,
  elapsedMs: number,
  { paint, showPlace }: { readonly paint: Paint; readonly showPlace: ShowPlace },
): string[] {
  const lines = [headline(outcome, paint)];
  const contracts = new Map(
    outcome.sdks.flatMap((sdk) => sdk.contracts.map((contract) => [contract.name, contract] as const)),
  );
  lines.push(...table([...contracts.values()].map((contract) => contractRow(contract, paint))));
  lines.push(...table(outcome.sdks.map((sdk) => sdkRow(sdk, paint))));
  if (outcome.editors !== undefined && outcome.editors !== "unchanged")
    lines.push(`  ${paint.accent(editorsPath)}  ${outcome.editors}`);
  for (const contract of contracts.values())
    lines.push(...setAsideLines(contract, (place) => showPlace(place, outcome.texts), paint));
  const impacts = new Map(
    outcome.sdks.flatMap((sdk) => sdk.impacts.map((impact) => [impact.contract, impact] as const)),
  );
  const pending = outcome.sdks.some((sdk) => sdk.state === "held back" || sdk.state === "would be written");
  for (const impact of impacts.values())
    lines.push(...impactLines(impact, (place) => showPlace(place, outcome.texts), paint));
  if (pending && [...impacts.values()].some((impact) => impact.changes.some(breaksProject)))
    lines.push(paint.quiet("  `rhema impact` shows every location"));
  return [...lines, paint.quiet(`  took ${(elapsedMs / 1000).toFixed(2)} s`)];
}

function headline(outcome: GenerateOutcome, paint: Paint): string {
  const held = outcome.sdks.filter((sdk) => sdk.state === "held back");
  const names = (sdks: readonly SdkOutcome[]): string => sdks.map((sdk) => sdk.name).join(", ");
  if (held.length > 0)
    return paint.bad(`generate: ${names(held)} not written, see the ${counted(errorCount(outcome), "error")} above`);
  if (outcome.sdks.every((sdk) => sdk.state === "unchanged"))
    return paint.good(`generate: ${names(outcome.sdks)} already up to date`);
  const dry = outcome.sdks.some((sdk) => sdk.state === "would be written");
  return paint.good(`generate: ${names(outcome.sdks)} ${dry ? "would be written (--dry-run)" : "written"}`);
}

function errorCount(outcome: GenerateOutcome): number {
  return outcome.sdks.flatMap((sdk) => sdk.problems).filter((problem) => problem.level === "error").length;
}

function contractRow(contract: ContractOutcome, paint: Paint): string[] {
  const kind = contract.protocol === "rest" ? "REST" : "GraphQL";
  const [first = "", ...others] = contract.from;
  return [
    paint.accent(contract.name),
    `${kind}${contract.version === "" ? "" : ` ${contract.version}`}`,
    counted(
      contract.calls,
      contract.protocol === "rest" ? "operation" : "query",
      contract.protocol === "rest" ? "operations" : "queries",
    ),
    ...(contract.leftOut > 0
      ? [paint.warn(`${String(contract.leftOut)} left out`)]
      : [counted(contract.types, "type")]),
    contract.untyped > 0 ? paint.warn(`${String(contract.untyped)} untyped`) : "all typed",
    paint.quiet(first + (others.length > 0 ? ` and ${String(others.length)} more` : "")),
  ];
}

function sdkRow(sdk: SdkOutcome, paint: Paint): string[] {
  const { added, changed, unchanged, removed } = sdk.files;
  const counts = [
    ...(added > 0 ? [`${String(added)} new`] : []),
    ...(changed > 0 ? [`${String(changed)} changed`] : []),
    ...(removed > 0 ? [`${String(removed)} removed`] : []),
    `${String(unchanged)} unchanged`,
  ];
  return [
    paint.accent(sdk.name),
    sdk.state,
    sdk.state === "held back" ? "nothing written" : `${counts.join(", ")} files`,
    paint.quiet(sdk.into),
  ];
}

function table(rows: readonly string[][]): string[] {
  const widthOf = (cell: string): number => cell.replace(/\u001b[\da-f]*\[\d+m/g, "").length;
  const widths = (rows[0] ?? []).map((_, column) => Math.max(...rows.map((row) => widthOf(row[column] ?? ""))));
  return rows.map((row) =>
    `  ${row.map((cell, column) => cell + " ".repeat(Math.max(0, (widths[column] ?? 0) - widthOf(cell)))).join("  ")}`.trimEnd(),
  );
}

const asideShown = 20;

function setAsideLines(contract: ContractOutcome, showPlace: (place: Place) => string, paint: Paint): string[] {
  const { name, setAside } = contract;
  if (setAside.length === 0) return [];
  const heading = `${counted(setAside.length, "part")} skipped and not in the SDK, because the contract is not valid there`;
  return [
    `  ${paint.warn(`${name}: ${heading}`)}`,
    ...setAside
      .slice(0, asideShown)
      .flatMap((each) => [
        `    ${paint.strong(each.what)}  ${paint.quiet(`${each.code}  ${showPlace(each.place)}`)}`,
        ...wrap(each.why, 88).map((line) => `      ${line}`),
      ]),
    ...(setAside.length > asideShown
      ? [`    and ${String(setAside.length - asideShown)} more (--json lists all)`]
      : []),
  ];
}

const breakingShown = 8;

function impactLines(impact: ContractImpact, showPlace: (place: Place) => string, paint: Paint): string[] {
  const breaking = impact.changes.filter(breaksProject);
  const risky = impact.changes.filter((change) => change.use !== "not used" && worst(change.verdict) === "risky");
  const verdict =
    breaking.length > 0
      ? paint.bad(`${counted(breaking.length, "breaks", "break")} what this project uses`)
      : risky.length > 0
        ? paint.warn(`${String(risky.length)} risky to what this project uses`)
        : paint.good("none breaks what this project uses");
  const versions = impact.from === "pin" ? "" : ` (${impact.from} -> ${impact.to})`;
  const lines = [
    `  ${paint.accent(impact.contract)} since the pin${versions}: ${counted(impact.changes.length, "change")}, ${verdict}`,
  ];
  for (const change of breaking.slice(0, breakingShown)) {
    const [hit, ...more] = change.hits;
    const where = hit ? `  ${showPlace(hit.place)}${more.length > 0 ? ` and ${String(more.length)} more` : ""}` : "";
    lines.push(`    ${paint.bad("x")} ${change.message}${paint.quiet(where)}`);
  }
  return breaking.length > breakingShown
    ? [...lines, `    and ${String(breaking.length - breakingShown)} more`]
    : lines;
}
