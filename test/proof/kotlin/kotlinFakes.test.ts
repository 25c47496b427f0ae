import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { packageRoot } from "../../support/packageRoot.js";
import { demoSdk } from "./demoSdk.js";

it("a fake connection responds, fails and records requests, in REST and GraphQL", async () => {
  if (!canCompileKotlin("the module for tests in Kotlin")) return;
  const files = demoSdk({ namespace: "app", testing: true });
  const compiler = KotlinCompiler.shared();
  const sdk = await compiler.compile(files);
  expect(sdk.printed).toBe("");
  const program = readFileSync(join(packageRoot, "test/support/kotlin/FakesProgram.kt"), "utf8");
  const app = await compiler.compile(new Map([["FakesProgram.kt", program]]), {
    libraries: [sdk.classes],
    isStrict: false,
  });
  expect(app.printed).toBe("");
  const ran = await compiler.run("FakesProgramKt", [app.classes, sdk.classes]);
  expect(ran.printed.trim().split("\n")).toEqual([
    "N-12 from a test null",
    "2",
    "No wind.",
    "kotlin.Unit",
    "R-1",
    "true",
    expect.stringContaining("the fake connection has no response for `getVessel`"),
    "POST https://fake.test/berths/N-07/reservations 1 Bearer secret",
    '{"vesselId":"v9","arrival":"2026-05-01","departure":"2026-05-01"}',
    "7 7",
    "7.5",
    "[v1, v2]",
    "[Tern true, Kite false]",
    "No such voyage.",
    expect.stringMatching(/^v7 \w+ Tern$/),
  ]);
});
