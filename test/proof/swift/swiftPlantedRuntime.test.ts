import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { playSwift, swiftSteps } from "../../languages/swift/playSwift.js";
import type { calledKinds } from "../../languages/vectors/vectorSteps.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { inTwos } from "./inTwos.js";

type Bug = readonly [file: string, text: string, instead: string];

/** Bugs of the runtime, by the kind of vector that must find them. */
const bugs: readonly (readonly [(typeof calledKinds)[number], Bug])[] = [
  ["parameters", ["RarerParameters.swift", 'by: "%20")', 'by: "+")']],
  ["parameters", ["Parameters.swift", 'encode($0.name) + (explode ? "=" : ",")', 'encode($0.name) + ","']],
  [
    "parameters",
    [
      "RarerParameters.swift",
      'written += scalar == "\'" ? "%27" : encode(String(scalar))',
      "written += encode(String(scalar)).lowercased()",
    ],
  ],
  ["bodies", ["FormBodies.swift", 'of: "%20", with: "+")', 'of: "%20", with: "%20")']],
  ["answers", ["Mismatch.swift", 'text += "~1"', 'text += "/"']],
  ["answers", ["Checks.swift", "where !known.contains(name)", "where known.contains(name)"]],
  ["values", ["Instants.swift", "seconds - offset", "seconds + offset"]],
  ["events", ["Events.swift", 'if value.first == UInt8(ascii: " ") { value.removeFirst() }', ""]],
  ["events", ["Events.swift", "if isFirstLine, line.starts(with: [0xEF, 0xBB, 0xBF]) { line.removeFirst(3) }", ""]],
  ["paging", ["Pages.swift", "{ Int64($0.count) }", "{ _ in 1 }"]],
  ["paging", ["Pages.swift", "(said as? String)?.isEmpty != true", "true"]],
  ["calls", ["Auth.swift", '.map { $0 + "; " } ?? ""', '.map { _ in "" } ?? ""']],
  ["failures", ["Send.swift", '"\\(status / 100)XX"', '"\\(status / 100)xx"']],
  ["redirects", ["Addresses.swift", " && port(one) == port(other)", ""]],
  ["redirects", ["Redirects.swift", '        headers["content-type"] = nil\n', ""]],
  ["redirects", ["Redirects.swift", 'response.status < 303 && method == "POST"', "response.status < 303"]],
];

it.skipIf(process.env["THOROUGH"] === undefined)(
  `${String(bugs.length)} bugs of the runtime in Swift are found by the vectors of their kind`,
  async ({ skip }) => {
    skip(!canCompileSwift("planted bugs in Swift"));
    const missed: string[] = [];
    await inTwos(bugs, async ([kind, [file, text, instead]]) => {
      const source = swiftRuntime.get(file) ?? "";
      expect([file, text, source.split(text).length]).toEqual([file, text, 2]);
      const runtime = new Map([...swiftRuntime, [file, source.replace(text, () => instead)]]);
      const { plan, steps } = swiftSteps(kind);
      const played = await playSwift(plan, steps, { runtime });
      const wrong = played.filter(({ expected, found }) => !isDeepStrictEqual(expected, found));
      if (wrong.length === 0) missed.push(`${file}: ${text}`);
      process.stdout.write(`${file}: ${String(wrong.length)} rows found it\n`);
    });
    expect(missed).toEqual([]);
  },
);
