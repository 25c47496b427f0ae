import { describe, expect, it } from "vitest";
import { changeCodes } from "../../../src/core/change/changeCodes.js";
import { comparedWhole, compareContracts } from "../../../src/core/change/judge/impact.js";
import { changeExamples } from "../../../src/core/change/examples.js";
import { typescriptFacts } from "../../support/typescriptSdk.js";
import { readContract } from "../../../src/core/readContract.js";

describe("the examples of changes", () => {
  it.each(changeCodes)("%s is the only change that its example raises", (code) => {
    const {
      protocol,
      before,
      after,
      standing,
      along = [],
      isOfNames = false,
      isOfPlaces = false,
    } = changeExamples[code];
    const document = protocol === "rest" ? "berths.yaml" : "passages.graphql";
    const [old, now] = [before, after].map((text) => {
      const { contract, problems } = readContract("berths", [{ document, text }]);
      expect(problems.filter(({ level }) => level === "error")).toEqual([]);
      if (!contract) throw new Error("The example cannot be read.");
      return contract;
    });
    if (!old || !now) throw new Error("There are two sides.");
    const facts = {
      ...typescriptFacts({}, standing ? { standing } : undefined),
      knowsTypesByName: isOfNames,
      takesRecordsApart: isOfPlaces,
    };
    const found = (isOfPlaces ? comparedWhole : compareContracts)(old, now, facts).map((change) => change.code);
    expect([...new Set(found)].sort()).toEqual([code, ...along].sort());
  });
});
