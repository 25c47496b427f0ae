import { join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";
import { canCompileSwift, runSwift, writtenSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { plannedDemo } from "../plannedContracts.js";
import { printedInSwift, turned } from "./compiledInSwift.js";

/** The errors of the usual formatter. */
async function complaints(paths: readonly string[]): Promise<string> {
  return (await runSwift(["swift", "format", "lint", "--strict", ...paths])).printed;
}

it("the Swift runtime is formatted with swift-format", async () => {
  if (!canCompileSwift("the form of the runtime in Swift")) return;
  const paths = [...swiftRuntime.keys()].map((file) => join(packageRoot, "runtimes/swift/wire", file));
  expect(await complaints(paths)).toBe("");
});

it.each([
  ["as usual", {}],
  ["with every setting turned", turned],
] as const)("the demo's Swift SDK is formatted with swift-format, %s", async (_, settings) => {
  if (!canCompileSwift("the form of an SDK in Swift")) return;
  const sources = [...printedInSwift(plannedDemo(), settings)].filter(([path]) => path.endsWith(".swift"));
  const folder = writtenSwift(new Map(sources));
  const printed = await complaints(sources.map(([path]) => join(folder, path)));
  // A text of the contract can be of any length. The compiler's own initialiser would make nullable values optional.
  const own = printed
    .split("\n")
    .filter((line) => line !== "" && !/\[(?:LineLength|UseSynthesizedInitializer)\]/.test(line));
  expect(own).toEqual([]);
});
