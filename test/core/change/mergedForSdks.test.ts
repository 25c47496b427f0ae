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

describe("a change that affects several SDKs", () => {
  const merged = mergedForSdks([
    { sdk: "web", changes: [change("breaking", "Berth.note")] },
    { sdk: "phone", changes: [change("risky", "berth.note"), change("breaking", "berth.note", "Only here.")] },
  ]);

  it("is reported once, with the verdict of the SDK that it affects most", () => {
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

  it("explains why only calls of an SDK that decodes whole responses are affected", () => {
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

  it("counts only for the SDKs in use, if there are any, each with its own names", () => {
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
