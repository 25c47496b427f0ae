import { isDeepStrictEqual } from "node:util";
import { describe, expect, it } from "vitest";
import { language as javascript } from "../../src/core/languages/javascript/language.js";
import { language as typescript } from "../../src/core/languages/typescript/language.js";
import { playScript } from "./vectors/playScript.js";
import { scriptSdk } from "./vectors/scriptSdk.js";
import { vectorRows } from "./vectors/vectorRows.js";
import { calledKinds, vectorSteps } from "./vectors/vectorSteps.js";

const { plan, steps } = vectorSteps();
const rowCount = calledKinds.reduce((sum, kind) => sum + vectorRows(kind).length, 0);

describe.each([typescript, javascript])("vectors, run by an SDK in $title", (language) => {
  it(`all ${String(rowCount)} rows are what they say`, async () => {
    const sdk = await scriptSdk(language, plan);
    const played = await playScript(sdk, language.contractNames("rows").connect, steps);
    const wrong = played.filter(({ expected, found }) => !isDeepStrictEqual(expected, found));
    expect(wrong.map(({ step, expected, found }) => ({ row: `${step.kind}: ${step.why}`, expected, found }))).toEqual(
      [],
    );
    expect(new Set(played.map(({ step }) => `${step.kind} ${step.why}`)).size).toBe(rowCount);
  });
});
