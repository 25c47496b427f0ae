import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";
import { canCompileSwift, compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { plannedDemo } from "../plannedContracts.js";
import { printedInSwift } from "./compiledInSwift.js";

it("a fake connection responds, fails and records requests, in an app with names of its own", async () => {
  if (!canCompileSwift("the module for tests in Swift")) return;
  const sources = [...printedInSwift(plannedDemo(), { testing: true })].filter(([path]) => path.endsWith(".swift"));
  const program = readFileSync(join(packageRoot, "test/support/swift/FakesProgram.swift"), "utf8");
  const compiled = await compileSwift(new Map([...sources, ["main.swift", program]]));
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const { printed } = await runSwift([compiled.program]);
  expect(printed.trim().split("\n")).toEqual([
    "N-12 from a test nil",
    "2",
    "No wind.",
    "R-1",
    "berths.tideTable: the fake connection has no network",
    "berths.getVessel: the fake connection has no response for `getVessel`",
    "POST https://fake.test/berths/N-07/reservations 1 Bearer secret",
    '{"vesselId":"v9","arrival":"2026-05-01","departure":"2026-05-01"}',
    "7 7",
    "7.5",
    '["v1", "v2"]',
    "Tern sails",
    "Kite is a Kite",
    '["No such voyage."]',
    expect.stringMatching(/^v7 \w+ Tern$/),
  ]);
});
