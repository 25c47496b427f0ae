import { printCoordinate } from "../../../src/core/use/coordinate.js";
import { describe, expect, it } from "vitest";
import type { Change } from "../../../src/core/change/change.js";
import { judgeUse } from "../../../src/core/change/judge/impact.js";
import { mergedForSdks } from "../../../src/core/change/judge/mergedForSdks.js";
import type { Level } from "../../../src/core/change/verdict.js";

const change = (code: Level, coordinate: string, message = "It changed."): Change => ({
  code: "answer.field.gone",
  at: "field",
  face: "answer",
  subject: "Berth.note",
  message,
  verdict: { code, apps: "risky" },
  operations: [],
  coordinates: [printCoordinate(coordinate)],
});
const place = { document: "app", offset: 0, length: 1 };
const uses = (sdk: string, text: string) => ({ sdk, coordinate: printCoordinate(text), kind: "reads" as const, place });

describe("a change that several SDKs see", () => {
  const merged = mergedForSdks([
    { sdk: "web", changes: [change("breaking", "Berth.note")] },
    { sdk: "phone", changes: [change("risky", "berth.note"), change("breaking", "berth.note", "Only here.")] },
  ]);

  it("is told once, and counts as it does for the one that it hits hardest", () => {
    expect(
      merged.map(({ message, verdict, sdks }) => [message, verdict.code, sdks?.map(({ sdk, code }) => [sdk, code])]),
    ).toEqual([
      [
        "It changed.",
        "breaking",
        [
          ["web", "breaking"],
          ["phone", "risky"],
        ],
      ],
      ["Only here.", "breaking", [["phone", "breaking"]]],
    ]);
  });

  it("says why calls alone are hit of an SDK that reads whole answers, and of no other", () => {
    const read = { ...change("breaking", "Berth.note"), callers: [printCoordinate("getBerth")] };
    const both = mergedForSdks([
      { sdk: "web", changes: [read] },
      { sdk: "phone", changes: [change("breaking", "berth.note")] },
    ]);
    const judged = (sdk: string) => {
      const source = [{ ...uses(sdk, "getBerth"), kind: "calls" as const }];
      const [first] = judgeUse(both, "rest", { queries: [], searched: true, source });
      return [first?.use, first?.hint?.startsWith("The SDK decodes whole responses")];
    };
    expect([judged("web"), judged("phone")]).toEqual([
      ["used", true],
      ["not used", undefined],
    ]);
  });

  it("counts for those in use alone where there are some, each by its own names", () => {
    const judged = (source: ReturnType<typeof uses>[], unknown: string[] = []) => {
      const [first] = judgeUse(merged.slice(0, 1), "rest", {
        queries: [],
        searched: true,
        source,
        unknown,
      });
      return [first?.use, first?.verdict.code, first?.hits.length];
    };
    expect(judged([])).toEqual(["not used", "breaking", 0]);
    expect(judged([uses("phone", "berth.note")])).toEqual(["used", "risky", 1]);
    // The name of another SDK is not a use.
    expect(judged([uses("phone", "Berth.note")])).toEqual(["not used", "breaking", 0]);
    expect(judged([], ["phone"])).toEqual(["cannot tell", "risky", 0]);
    expect(judged([uses("web", "Berth.note"), uses("phone", "berth.note")])).toEqual(["used", "breaking", 1]);
  });
});
