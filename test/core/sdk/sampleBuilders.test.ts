import { describe, expect, it } from "vitest";
import { readContract } from "../../../src/core/readContract.js";
import type { Sample } from "../../../src/core/sdk/lower/values/sample.js";
import { sampleBuilders } from "../../../src/core/sdk/lower/values/sampleBuilders.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { language } from "../../../src/core/languages/typescript/language.js";
import { makeContract } from "../../proof/random/makeContract.js";

/** The types whose builders a sample calls. */
function calledBy(sample: Sample): string[] {
  switch (sample.kind) {
    case "built":
      return [sample.id];
    case "list":
      return sample.items.flatMap(calledBy);
    case "record":
      return sample.fields.flatMap(({ of }) => calledBy(of));
    case "member":
    case "tagged":
      return calledBy(sample.of);
    default:
      return [];
  }
}

describe("sample builders", () => {
  it("never call each other in a cycle, and never one that cannot finish, in 300 random contracts", () => {
    const settings = settledSettings(language.settings, { testing: true });
    let calls = 0;
    let ways = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const { document, occurred } = makeContract(seed);
      const { contract } = readContract("random", [{ document: "api.json", text: JSON.stringify(document) }]);
      if (contract?.protocol !== "rest") throw new Error(`Seed ${String(seed)} cannot be read.`);
      ways += occurred.get("a circle that a union leads out of") ?? 0;
      const called = new Map<string, string[]>();
      for (const { type, filled, lacking } of sampleBuilders(planRest(contract, {}).types, settings))
        if (lacking.length === 0)
          called.set(
            type.id,
            filled.flatMap(({ of }) => calledBy(of)),
          );
      for (const [id, others] of called) {
        calls += others.length;
        const reached = new Set(others);
        for (const key of reached)
          for (const next of called.get(key) ?? ["a builder that lacks a field"]) reached.add(next);
        expect([...reached], `seed ${String(seed)}`).not.toContain("a builder that lacks a field");
        expect([...reached], `seed ${String(seed)}`).not.toContain(id);
      }
    }
    expect(calls).toBeGreaterThan(1000);
    expect(ways).toBeGreaterThan(30);
  });
});
