import { expect, it } from "vitest";
import { canCompileKotlin, compileWithOldest } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { demoSdk } from "./demoSdk.js";

it("the demo's SDK and the whole runtime compile with the oldest supported compiler and libraries", () => {
  if (!canCompileKotlin("the oldest compiler of Kotlin")) return;
  const files = demoSdk({ testing: true, verify: "answers" });
  for (const [file, source] of kotlinRuntime)
    files.set(`wire/${file}`, source.replace(/^package wire$/m, "package app.wire"));
  expect(compileWithOldest(files)).toBe("");
});
