import { expect, it } from "vitest";
import { holdsTrue } from "./holdsTrue.js";

it("each compile error is put under the one of several changes that causes it", async () => {
  const { cases, report } = await holdsTrue({ singles: 0, several: 30, appEvery: 3 }, { breaking: 20, wrong: 1 });
  const blames = cases.flatMap(({ blame }) => blame ?? []);
  expect(blames.reduce((sum, { right }) => sum + right, 0)).toBeGreaterThan(50);
  expect(blames.flatMap(({ wrong }) => wrong).length, report).toBeLessThanOrEqual(2);
});
