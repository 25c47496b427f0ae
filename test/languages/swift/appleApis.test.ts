import { expect, it } from "vitest";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { printedInSwift, turned } from "../../proof/swift/compiledInSwift.js";
import { plannedDemo } from "../../proof/plannedContracts.js";

/** APIs that iOS 15 lacks, with the version that added each. */
const missing: readonly (readonly [name: string, since: string, pattern: RegExp])[] = [
  ["any P<T> of a protocol with parameters", "iOS 16", /\bany \w+(?:\.\w+)*</],
  ["Duration", "iOS 16", /\bDuration\b/],
  ["Task.sleep(for:)", "iOS 16", /\bsleep\((?:for|until):/],
  ["Clock", "iOS 16", /\b(?:ContinuousClock|SuspendingClock|Clock)\b/],
  ["Regex", "iOS 16", /\bRegex\b|\bfirstMatch\(of:|\bwholeMatch\(/],
  ["String.contains of a text, replacing, split by a text", "iOS 16", /\.(?:replacing|ranges|trimmingPrefix)\(/],
  [
    "URL(filePath:), URL.path(), URL.appending(path:)",
    "iOS 16",
    /URL\(filePath:|\.path\(\)|\.appending\((?:path|component)/,
  ],
  ["URL.host() and what is like it", "iOS 16", /\.(?:host|query|fragment)\(\)/],
  ["URL(string:encodingInvalidCharacters:)", "iOS 17", /encodingInvalidCharacters/],
  ["OSAllocatedUnfairLock", "iOS 16", /OSAllocatedUnfairLock/],
  ["Mutex and Atomic", "iOS 18", /\bMutex\b|\bAtomic\b/],
  ["withDiscardingTaskGroup", "iOS 17", /DiscardingTaskGroup/],
  ["Observation", "iOS 17", /@Observable|import Observation/],
  ["next(isolation:)", "iOS 18", /isolation:/],
  ["some AsyncSequence<…>", "iOS 18", /some AsyncSequence/],
  [
    "functions with a typed error in lists and optionals",
    "iOS 18",
    /(?:\[|Optional<)[^\]\n]*throws\([A-Z]\w*(?:\.\w+)*\) -> [^\]\n]*(?:\]|>)/,
  ],
];

function found(texts: ReadonlyMap<string, string>): string[] {
  return [...texts].flatMap(([path, text]) => {
    const code = text
      .replace(/\/\/.*$/gm, "")
      .replace(/"""[\s\S]*?"""/g, '""')
      .replace(/"(?:[^"\\\n]|\\.)*"/g, '""');
    return missing.flatMap(([name, since, pattern]) => (pattern.test(code) ? [`${path}: ${name} (${since})`] : []));
  });
}

it("the runtime needs nothing newer than iOS 15", () => {
  expect(found(swiftRuntime)).toEqual([]);
});

it.each([
  ["as usual", {}],
  ["with every setting turned", turned],
] as const)("an SDK needs nothing newer than iOS 15, %s", (_, settings) => {
  expect(found(printedInSwift(plannedDemo(), settings))).toEqual([]);
});

it("finds newer APIs", () => {
  const text = "let a: any Source<Int> = b\nlet c: [(Int) throws(Mismatch) -> Int] = []\ntry await Task.sleep(for: d)";
  expect(found(new Map([["A.swift", text]]))).toHaveLength(3);
});
