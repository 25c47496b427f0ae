import { expect, it } from "vitest";
import { contractBugs, queryBugs } from "./bugs.js";
import { testedCore } from "../random/testedCore.js";
import { checkWithContracts, checkWithQueries, huntBug } from "./huntBug.js";

/** Other seeds than the known ones are tried only on request, because that takes long. */
const mostSeeds = Number(process.env["PLANTED_SEEDS"] ?? 0);

it.each([
  ["random contracts", contractBugs, checkWithContracts],
  ["random schemas and queries", queryBugs, checkWithQueries],
] as const)("every planted bug is found by %s", async (what, bugs, check) => {
  const rows: string[] = [];
  const missed: string[] = [];
  const seeds = [...new Set(bugs.flatMap((bug) => bug.seeds))];
  expect(check(testedCore, seeds, true), "without a bug").toEqual([]);
  for (const bug of bugs) {
    const { seeds: by, finders } = await huntBug(bug, check, mostSeeds);
    const how = [...finders].map(([name, times]) => `${name} (${String(times)})`).join(", ");
    rows.push(`  ${bug.name} [seed ${by.join(", ")}]: ${how === "" ? "MISSED" : how}`);
    if (finders.size === 0) missed.push(bug.name);
  }
  const found = bugs.length - missed.length;
  process.stdout.write(
    `${rows.join("\n")}\n${String(found)} of ${String(bugs.length)} planted bugs found by ${what}\n`,
  );
  expect(missed).toEqual([]);
});
