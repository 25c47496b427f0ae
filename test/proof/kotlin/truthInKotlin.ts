import { mkdirSync, readdirSync, readFileSync, renameSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { kotlinUses } from "../../../src/workspace/languages/kotlin/source/kotlinUses.js";
import type { SourceText } from "../../../src/workspace/languages/source/sdkSource.js";
import type { SourceUse } from "../../../src/core/use/sourceUse.js";
import { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { countedTruth, type Truth, type Variant } from "../truth/countedTruth.js";

/** An app in Kotlin with the SDK that it is written for. */
export interface KotlinTruth {
  readonly app: readonly SourceText[];
  /** The package of the SDK, and the name of its only contract. */
  readonly namespace: string;
  readonly contract: string;
  readonly sdk: ReadonlyMap<string, string>;
}

/** The sources of an app of the tests. */
export function appSources(name: string): SourceText[] {
  const folder = join(packageRoot, "test/support/kotlin", name);
  return readdirSync(folder)
    .sort()
    .map((file) => ({ document: file, text: readFileSync(join(folder, file), "utf8") }));
}

/** Returns the uses of the SDK in the app's source. */
export function usesOf({ app, contract, sdk }: KotlinTruth, connect: string): SourceUse[] {
  const texts = (start: string): SourceText[] =>
    [...sdk].flatMap(([path, text]) => (path.startsWith(start) ? [{ document: path, text }] : []));
  return kotlinUses(app, { name: "sdk", connect, files: texts(`${contract}/`), others: texts("wire/") });
}

/**
 * Compiles the app with each variant, and compares the compiler's errors with the predictions. For a variant, only the
 * files that differ are compiled; the others have classes.
 *
 * @throws Error if the app does not compile with the SDK that it is written for
 */
export async function truthOf(truth: KotlinTruth, variants: readonly Variant[]): Promise<Truth> {
  const compiler = KotlinCompiler.shared();
  const runtime = [...kotlinRuntime].map(([file, text]): [string, string] => [
    `wire/${file}`,
    text.replace(/^package wire$/m, `package ${truth.namespace}.wire`),
  ]);
  const sdk = contractFiles(truth.sdk, truth);
  const base = await compiler.compile(new Map([...runtime, ...sdk]), { isStrict: false });
  if (!base.isFine) throw new Error(base.printed);
  const classes = classesByFile(base.classes, new Set(sdk.keys()));
  const families = sealedFamilies(sdk);
  const app = truth.app.map(({ document, text }): [string, string] => [`app/${document}`, text]);
  const complaintsOf = async (files: ReadonlyMap<string, string>): Promise<string[]> => {
    const different = new Set([...files].flatMap(([path, text]) => (sdk.get(path) === text ? [] : [path])));
    const isSame = (path: string): boolean =>
      files.get(path) === sdk.get(path) &&
      !families.some((each) => each.has(path) && [...each].some((one) => different.has(one)));
    const changed = [...files].filter(([path]) => !isSame(path));
    const friends = [...classes].flatMap(([path, folder]) => (path === "" || isSame(path) ? [folder] : []));
    const { printed } = await compiler.compile(new Map([...changed, ...app]), { friends, isStrict: false });
    return printed.split("\n").filter((line) => /\.kt:\d+:\d+: error: /.test(line));
  };
  const before = await complaintsOf(sdk);
  if (before.length > 0) throw new Error(before.join("\n"));
  return countedTruth(variants, (files) => complaintsOf(contractFiles(files, truth)));
}

/** The sources of the contract's part of an SDK. */
function contractFiles(files: ReadonlyMap<string, string>, { contract }: KotlinTruth): Map<string, string> {
  return new Map([...files].filter(([path]) => path.startsWith(`${contract}/`) && path.endsWith(".kt")));
}

/** Files that declare a sealed type and those that extend it, which Kotlin requires in one module. */
function sealedFamilies(files: ReadonlyMap<string, string>): Set<string>[] {
  return [...files].flatMap(([path, text]) =>
    [...text.matchAll(/^public sealed interface (\w+)/gm)].map(([, name = ""]) => {
      const extending = new RegExp(`^(?:\\)|public data object \\w+) : [^\\n]*\\b${name}\\b`, "m");
      return new Set([path, ...[...files].flatMap(([other, each]) => (extending.test(each) ? [other] : []))]);
    }),
  );
}

/**
 * Moves the classes of some Kotlin files into folders of their own, so that they can be left out.
 *
 * @returns folders by the path of the source; by "" that of all other classes
 */
function classesByFile(classes: string, sources: ReadonlySet<string>): Map<string, string> {
  const paths = new Map([...sources].map((path) => [basename(path), path]));
  const found = new Map([["", classes]]);
  for (const path of readdirSync(classes, { recursive: true, encoding: "utf8" })) {
    if (!path.endsWith(".class")) continue;
    // A class contains the name of its source file (JVM specification, section 4.7.10).
    const text = readFileSync(join(classes, path), "latin1");
    const [source] = [...text.matchAll(/\x01[^](.)([\w.]+\.kt)/g)].flatMap(([, length = "", name = ""]) => {
      return paths.get(name.slice(0, length.charCodeAt(0))) ?? [];
    });
    if (source === undefined) continue;
    const folder = join(`${classes}-by-file`, source);
    found.set(source, folder);
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    renameSync(join(classes, path), join(folder, path));
  }
  return found;
}
