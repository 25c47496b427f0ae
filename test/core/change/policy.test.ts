import { describe, expect, it } from "vitest";
import { isHeld, usualGate } from "../../../src/core/change/judge/gate.js";
import type { JudgedChange } from "../../../src/core/change/judge/judgedChange.js";
import { applyPolicy, type Policy } from "../../../src/core/change/judge/policy.js";

const gone: JudgedChange = {
  code: "answer.field.gone",
  at: "field",
  face: "answer",
  subject: "Berth.note",
  message: "",
  verdict: { code: "breaking", apps: "breaking" },
  operations: [],
  coordinates: [],
  use: "used",
  hits: [],
};
const decided = (policy: Policy, today = "2031-05-01") =>
  applyPolicy([gone], policy, { contract: "berths", today })[0] ?? gone;
const acceptance = { change: "answer.field.gone", reason: "known", until: "2031-05-01" };

describe("a team's own ratings of changes", () => {
  it("another level for one verdict does not change the other", () => {
    const change = decided({ rules: { "answer.field.gone": { apps: "compatible", reason: "no apps yet" } } });
    expect([change.verdict, change.leveled]).toEqual([{ code: "breaking", apps: "compatible" }, "no apps yet"]);
  });

  it.each<[string, Policy["accepted"], boolean]>([
    ["on its last day", [acceptance], false],
    ["with its subject and contract", [{ ...acceptance, subject: "Berth.note", contract: "berths" }], false],
    ["of another subject", [{ ...acceptance, subject: "Berth.id" }], true],
    ["of another contract", [{ ...acceptance, contract: "tides" }], true],
    ["outlived", [{ ...acceptance, until: "2031-04-30" }], true],
  ])("a change that was accepted %s", (_name, accepted, held) => {
    expect(isHeld(decided({ accepted: accepted ?? [] }), usualGate)).toBe(held);
  });
});
