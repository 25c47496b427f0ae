import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { canCompileKotlin, compileWithOldest } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";

it("the demo's SDK and the whole runtime compile with the oldest compiler and libraries that are supported", () => {
  if (!canCompileKotlin("the oldest compiler of Kotlin")) return;
  const text = readFileSync(join(packageRoot, "demo/contracts/v1/berths.yaml"), "utf8");
  const { contract } = readContract("berths", [{ document: "berths.yaml", text }]);
  if (contract?.protocol !== "rest") throw new Error("The demo's contract cannot be read.");
  const files = printSdk(
    language,
    { name: "app", contracts: [planRest(contract, {})] },
    { runtime: kotlinRuntime, scalars: new Map(), settings: {} },
  );
  for (const [file, source] of kotlinRuntime)
    files.set(`wire/${file}`, source.replace(/^package wire$/m, "package app.wire"));
  expect(compileWithOldest(files)).toBe("");
});
