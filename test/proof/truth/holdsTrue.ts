import { expect } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";
import { measured, told, type Truth, type TruthOptions } from "../../../truth/measured.js";
import { score, scoreInUse } from "../../../truth/truth.js";

/**
 * Changes contracts, and expects that the predictions match compilers and released apps.
 *
 * @param expected the minimum number of changes that break, so that the test means something, and how many more may
 * be predicted to
 */
export async function holdsTrue(
  options: Pick<TruthOptions, "singles" | "several" | "appEvery">,
  expected: { readonly breaking: number; readonly wrong: number },
): Promise<Truth & { readonly report: string }> {
  const truth = await measured(packageRoot, { ...options, words: "", seed: 1 });
  const report = told(truth).join("\n");
  process.stdout.write(`${report}\n`);
  const { cases, never } = truth;
  expect(never).toEqual([]);
  for (const clock of ["code", "apps"] as const) {
    const { truths, found, predicted, right } = score(cases, clock, "breaking");
    expect(truths, report).toBeGreaterThan(expected.breaking);
    expect(found, report).toBe(truths);
    expect(predicted - right, report).toBeLessThanOrEqual(expected.wrong);
  }
  for (const clock of ["code", "apps"] as const) {
    const { truths, found, predicted, right } = scoreInUse(cases, clock);
    if (clock === "code") expect(truths, report).toBeGreaterThan(0);
    expect(found, report).toBe(truths);
    expect(predicted - right, report).toBeLessThanOrEqual(1);
  }
  expect(cases.filter(({ isMeaningless, changes }) => isMeaningless && changes.length > 0)).toEqual([]);
  return { ...truth, report };
}
