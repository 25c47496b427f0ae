import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { swiftUses } from "../../../src/workspace/languages/swift/source/swiftUses.js";
import type { SourceText } from "../../../src/workspace/languages/source/sdkSource.js";
import type { SourceUse } from "../../../src/core/use/sourceUse.js";
import { packageRoot } from "../../support/packageRoot.js";
import { runSwift, writtenSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { countedTruth, type Truth, type Variant } from "../truth/countedTruth.js";

/** An app in Swift with the SDK that it is written for. */
export interface SwiftTruth {
  readonly app: readonly SourceText[];
  /** The folder of the SDK's only contract. */
  readonly contract: string;
  readonly sdk: ReadonlyMap<string, string>;
}

/** The sources of an app of the tests. */
export function appSources(name: string): SourceText[] {
  const folder = join(packageRoot, "test/support/swift", name);
  return readdirSync(folder)
    .sort()
    .map((file) => ({ document: file, text: readFileSync(join(folder, file), "utf8") }));
}

/** Returns the uses of the SDK in the app's source. */
export function usesOf({ app, contract, sdk }: SwiftTruth, connect: string): SourceUse[] {
  const texts = (start: string): SourceText[] =>
    [...sdk].flatMap(([path, text]) => (path.startsWith(start) ? [{ document: path, text }] : []));
  return swiftUses(app, { name: "sdk", connect, files: texts(`${contract}/`), others: texts("Wire/") });
}

/**
 * Checks the types of the app with each variant, and compares the compiler's errors with the predictions. The runtime
 * is compiled once, as a module with visible internals.
 *
 * @throws Error if the app does not compile with the SDK that it is written for
 */
export async function truthOf(truth: SwiftTruth, variants: readonly Variant[]): Promise<Truth> {
  const runtime = await compiledRuntime();
  const app = truth.app.map(({ document, text }): [string, string] => [`app/${document}`, text]);
  const complaintsOf = async (files: ReadonlyMap<string, string>): Promise<string[]> => {
    const own = [...files].filter(([path]) => path.startsWith(`${truth.contract}/`) && path.endsWith(".swift"));
    // On one line with the first of the file, so that places stay the same.
    const sources = [...own, ...app].map(([path, text]): [string, string] => [
      path,
      `@testable import WireModule; ${text}`,
    ]);
    const folder = writtenSwift(new Map(sources));
    const paths = sources.map(([path]) => join(folder, path));
    const { printed } = await runSwift([
      "swiftc",
      "-swift-version",
      "6",
      "-wmo",
      "-typecheck",
      "-parse-as-library",
      "-I",
      runtime,
      ...paths,
    ]);
    return printed.split("\n").filter((line) => /\.swift:\d+:\d+: error: /.test(line));
  };
  const before = await complaintsOf(truth.sdk);
  if (before.length > 0) throw new Error(before.join("\n"));
  return countedTruth(variants, complaintsOf, 2);
}

let runtimeModule: Promise<string> | undefined;

function compiledRuntime(): Promise<string> {
  runtimeModule ??= (async () => {
    const folder = writtenSwift(swiftRuntime);
    const how = ["-swift-version", "6", "-wmo", "-enable-testing", "-parse-as-library", "-module-name", "WireModule"];
    const paths = [...swiftRuntime.keys()].map((file) => join(folder, file));
    const { isFine, printed } = await runSwift([
      "swiftc",
      ...how,
      "-emit-module",
      "-emit-module-path",
      join(folder, "WireModule.swiftmodule"),
      ...paths,
    ]);
    if (!isFine) throw new Error(printed);
    return folder;
  })();
  return runtimeModule;
}
