import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { playSwift } from "../../languages/swift/playSwift.js";
import { vectorRows } from "../../languages/vectors/vectorRows.js";
import { calledKinds, vectorSteps } from "../../languages/vectors/vectorSteps.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";

const { plan, steps } = vectorSteps();
const rowCount = calledKinds.reduce((sum, kind) => sum + vectorRows(kind).length, 0);

it(`all ${String(rowCount)} rows are what they say, by an SDK in Swift`, async ({ skip }) => {
  skip(!canCompileSwift("the rows of vectors/ in Swift"));
  const played = await playSwift(plan, steps);
  const wrong = played.filter(({ expected, found }) => !isDeepStrictEqual(expected, found));
  expect(wrong.map(({ step, expected, found }) => ({ row: `${step.kind}: ${step.why}`, expected, found }))).toEqual([]);
  expect(new Set(played.map(({ step }) => `${step.kind} ${step.why}`)).size).toBe(rowCount);
});
