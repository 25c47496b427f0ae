import { expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { measured, told } from "../../truth/measured.js";
import { score } from "../../truth/truth.js";

it("what is predicted of changed contracts is what compilers and released apps then say", async () => {
  const truth = await measured(packageRoot, { singles: 226, several: 30, words: "", seed: 1 });
  const report = told(truth).join("\n");
  process.stdout.write(`${report}\n`);
  const { cases, never } = truth;
  expect(never).toEqual([]);
  expect(new Set(cases.map(({ base }) => base)).size).toBe(6);
  for (const clock of ["code", "apps"] as const) {
    const { truths, found, predicted, right } = score(cases, clock, "breaking");
    expect(truths, report).toBeGreaterThan(60);
    expect(found, report).toBe(truths);
    expect(right / predicted, report).toBeGreaterThanOrEqual(0.98);
  }
  expect(cases.filter(({ isMeaningless, changes }) => isMeaningless && changes.length > 0)).toEqual([]);
  const blames = cases.flatMap(({ blame }) => blame ?? []);
  expect(blames.reduce((sum, { right }) => sum + right, 0)).toBeGreaterThan(50);
  expect(blames.flatMap(({ wrong }) => wrong).length, report).toBeLessThanOrEqual(2);
}, 900_000);
