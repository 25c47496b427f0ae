import { hideSecrets } from "../../core/text/secrets.js";
import { visible } from "../../core/text/visible.js";
import { counted, wrap, type Paint } from "../../core/report/paint.js";
import { junitSuites } from "../../core/report/machineReports.js";
import type { Disagreement, Observed } from "../../standin/observe/observations.js";

const width = 80;
const shownOf = 40;

/** Returns the report of `observe` for people. */
export function observedLines(observed: Observed, paint: Paint): string[] {
  const { exchanges, disagreeing, operations, unknown, neverSeen, unjudged, passedOver, known } = observed;
  const seen = `${String(known - neverSeen.length)} of ${String(known)} operations seen`;
  const head =
    disagreeing === 0
      ? paint.good(
          `observe: ${counted(exchanges, "request matches", "requests match")} the contract${known === 0 ? "" : `, ${seen}`}`,
        )
      : paint.bad(
          `observe: ${String(disagreeing)} of ${counted(exchanges, "request")} ${disagreeing === 1 ? "does" : "do"} not match${known === 0 ? "" : `, ${seen}`}`,
        );
  return [
    exchanges === 0 ? paint.warn("observe: no traffic") : head,
    ...operations
      .filter(({ disagreements }) => disagreements.length > 0)
      .flatMap(({ contract, operation, seen: times, statuses, disagreements }) => [
        `  ${paint.strong(visible(operation))}${paint.quiet(
          `  ${contract}, ${counted(times, "time")}: ${Object.entries(statuses)
            .map(([status, count]) => `${status} x ${String(count)}`)
            .join(", ")}`,
        )}`,
        ...rows(disagreements, paint),
      ]),
    ...(unknown.length === 0 ? [] : [`  ${paint.strong("not in any contract")}`, ...rows(unknown, paint)]),
    ...Object.entries(unjudged).map(([why, count]) => paint.quiet(`  not checked: ${why}, ${counted(count, "time")}`)),
    ...(passedOver === 0 ? [] : [paint.quiet(`  ignored: ${counted(passedOver, "request")} to other addresses`)]),
    ...(neverSeen.length === 0
      ? []
      : wrap(
          `never seen: ${neverSeen
            .slice(0, shownOf)
            .map(({ operation }) => visible(operation))
            .join(", ")}${neverSeen.length > shownOf ? `, and ${String(neverSeen.length - shownOf)} more` : ""}`,
          width - 2,
          "  ",
        ).map((line) => paint.quiet(`  ${line}`))),
  ];
}

function rows(disagreements: readonly Disagreement[], paint: Paint): string[] {
  return disagreements.flatMap(({ message, count, first }) => [
    ...wrap(visible(message), width - 6).map((line, at) =>
      at === 0 ? `    ${paint.bad("x")} ${line}` : `      ${line}`,
    ),
    `      ${paint.quiet(`${counted(count, "time")}, first ${visible(first)}`)}`,
  ]);
}

/** Returns the report of `observe` for a review comment. */
export function observedMarkdown(observed: Observed): string {
  const { exchanges, disagreeing, operations, unknown, neverSeen } = observed;
  const cell = (text: string): string => visible(hideSecrets(text)).replace(/[\\|`<>[\]*_]/g, "\\$&");
  const row = (operation: string, { message, count, first }: Disagreement): string =>
    `| ${cell(operation)} | ${cell(message)} | ${String(count)} | ${cell(first)} |`;
  const table = [
    ...operations.flatMap(({ operation, disagreements }) => disagreements.map((each) => row(operation, each))),
    ...unknown.map((each) => row("not in any contract", each)),
  ];
  return [
    `**${disagreeing === 0 ? `Everything matches (${counted(exchanges, "request")})` : `${String(disagreeing)} of ${counted(exchanges, "request")} ${disagreeing === 1 ? "does" : "do"} not match the contract`}**`,
    "",
    ...(table.length === 0 ? [] : ["| operation | mismatch | count | first |", "|---|---|---|---|", ...table, ""]),
    ...(neverSeen.length === 0
      ? []
      : [`Never seen: ${neverSeen.map(({ operation }) => cell(operation)).join(", ")}`, ""]),
  ].join("\n");
}

/**
 * Returns the report of `observe` as JUnit XML: a case for each operation, which fails if its traffic does not match
 * the contract.
 */
export function observedJunit({ operations, unknown }: Observed): string {
  const cases = [
    ...operations.map(({ contract, operation, disagreements }) => ({
      suite: contract,
      name: operation,
      disagreements,
    })),
    ...unknown.map((each) => ({ suite: "in no contract", name: each.message, disagreements: [each] })),
  ];
  return junitSuites(
    "rhema observe",
    cases.map(({ suite, name, disagreements }) => ({
      suite,
      name,
      failures: disagreements.map(({ message, count, first }) => ({
        message,
        detail: `${message}\n${counted(count, "time")}, first ${first}`,
      })),
    })),
  );
}
