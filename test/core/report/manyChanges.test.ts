import { describe, expect, it } from "vitest";
import { usualGate } from "../../../src/core/change/judge/gate.js";
import { judgeUse } from "../../../src/core/change/judge/impact.js";
import { compareRest } from "../../../src/core/change/compare/compareRest.js";
import type { ContractImpact } from "../../../src/core/change/judge/judgedChange.js";
import { ShownTexts } from "../../../src/core/problem/shownTexts.js";
import { impactMarkdown, longestComment } from "../../../src/core/report/impactMarkdown.js";
import { impactPage } from "../../../src/core/report/impactPage.js";
import { joinedChanges } from "../../../src/core/report/joinedChanges.js";
import { plainPaint } from "../../../src/core/report/paint.js";
import { renderImpact } from "../../../src/core/report/renderImpact.js";
import { manyChanges } from "../../support/manyChanges.js";
import { readRest } from "../../support/readRest.js";
import { contractWith } from "../../support/smallContract.js";
import { typescriptFacts } from "../../support/typescriptSdk.js";

function impactOf(before: unknown, after: unknown, searched = false): ContractImpact {
  const [from, to] = [readRest(before).contract, readRest(after).contract];
  const changes = judgeUse(compareRest(from, to, typescriptFacts()), "rest", {
    queries: [],
    searched,
    ...(searched ? { source: [] } : {}),
  });
  return {
    contract: "harbour",
    from: "1",
    to: "2",
    changes,
    brokenQueries: [],
    contracts: { before: from, after: to },
  };
}

const texts = { before: new ShownTexts(() => ""), after: new ShownTexts(() => "") };
const reporting = { gate: usualGate };
const many = (own: number, searched = false): ContractImpact => {
  const { before, after } = manyChanges(own);
  return impactOf(JSON.parse(before), JSON.parse(after), searched);
};
const lines = (impact: ContractImpact): string[] => renderImpact([impact], texts, { paint: plainPaint, all: false });

describe("a report on many changes", () => {
  it("has the counts first, and breaking changes within the first forty lines", () => {
    const impact = many(1);
    expect(impact.changes.length).toBeGreaterThan(900);
    const shown = lines(impact);
    const start = shown.slice(0, 40).join("\n");
    expect(start).toMatch(
      /^impact: \d+ of \d+ changes can break this project\n\n +breaking +risky +compatible\n {2}your code/,
    );
    expect(start).toContain("236  A response can have another enum value  answer.choice.new");
    expect(start).toContain("x 96 operations no longer declare the failure 409.");
    expect(start).toContain("x `season` of 96 operations is now required.");
    expect(start).toMatch(/`harbour\.Flag` can now be `flag-\d+`, `flag-\d+`, `flag-\d+` and 233/);
    expect(start).toContain("x `field1` of 96 types can now be absent from responses.");
    expect(shown.filter((line) => line.includes("cannot tell"))).toHaveLength(1);
    expect(shown.every((line) => line.length <= 80 || line.includes("  contract  "))).toBe(true);
  });

  it("counts how many changes are in use, if that is known", () => {
    expect(lines(many(1, true))[2]).toMatch(/^ {2}in use, of all +breaking/);
    expect(lines(many(1, true))[3]).toMatch(/0 of \d+/);
  });

  it("counts released apps separately, and reports a change for both only once", () => {
    const impact = many(1, true);
    const used = { ...impact, changes: impact.changes.map((change) => ({ ...change, use: "used" as const })) };
    const released = {
      ...used,
      isReleased: true,
      changes: used.changes.map((change) => ({
        ...change,
        verdict: { ...change.verdict, code: "compatible" as const },
        users: { releases: ["1.0"], share: 0.5 },
      })),
    };
    const shown = (impacts: readonly ContractImpact[]) =>
      renderImpact(impacts, texts, { paint: plainPaint, all: false }).slice(3, 30);
    const [both, alone] = [shown([used, released]), shown([used])];
    expect(both[0]).toBe(alone[0]);
    const breaking = (lines: readonly string[]) => lines.filter((line) => line.startsWith("    x "));
    expect(breaking(both)).toEqual(breaking(alone));
  });

  it("shows the full name of a type whose name contains dots", () => {
    expect(lines(many(1))).toContain("  type harbour.Flag");
  });

  it("fits into a comment, and says how much was left out", () => {
    const wide = Array.from({ length: 1500 }, (_, at) => `type${String(at)}WithALongName`);
    const version = (field: string) =>
      contractWith(
        Object.fromEntries(
          wide.map((name) => [name, { type: "object", required: [field + name], properties: { [field + name]: {} } }]),
        ),
      );
    const text = impactMarkdown([impactOf(version("old"), version("new"))], texts, reporting);
    expect(text.length).toBeLessThanOrEqual(longestComment);
    expect(text.length).toBeGreaterThan(longestComment / 2);
    expect(text).toMatch(/\d+ more entries did not fit into the comment\. `rhema impact --report html` shows all\./);
    expect(impactMarkdown([many(1)], texts, reporting)).not.toContain("did not fit");
  });

  it("is a page of less than a megabyte, with closed groups", () => {
    const page = impactPage([many(9)], texts, reporting);
    expect(page.length).toBeLessThan(1_000_000);
    expect(page).not.toContain('class="change" open');
    expect(page).toContain("flag-239");
  });
});

describe("changes with one cause", () => {
  it("are split into used and unused", () => {
    const { changes } = impactOf(
      contractWith({ Flag: { type: "string", enum: ["a"] } }),
      contractWith({ Flag: { type: "string", enum: ["a", "b", "c", "d", "e", "f"] } }),
    );
    const some = changes.map((change, at) => (at === 0 ? { ...change, use: "used" as const } : change));
    expect(joinedChanges(some).map(({ message, parts }) => [message, parts.length])).toEqual([
      ["`Flag` can now be `b` in responses.", 1],
      ["`Flag` can now be `c`, `d`, `e` and `f` in responses.", 4],
    ]);
  });

  it.each([
    ["GET /a was removed.", "2 operations were removed."],
    ["GET /a no longer requires authentication.", "2 operations no longer require authentication."],
    ["The argument `x` of `GET /a` is now required.", "The argument `x` of 2 operations is now required."],
    ["`GET /a x` is now required.", "`x` of 2 operations is now required."],
  ])("%s of several: %s", (message, said) => {
    const [first] = impactOf(contractWith({ A: { type: "string" } }), contractWith({ A: { type: "integer" } })).changes;
    const all = ["GET /a", "GET /b"].flatMap((label) =>
      first ? [{ ...first, subject: label, operations: [label], message: message.replace("GET /a", label) }] : [],
    );
    expect(joinedChanges(all).map((change) => change.message)).toEqual([said]);
  });
});
