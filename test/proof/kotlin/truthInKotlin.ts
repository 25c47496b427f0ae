import { mkdirSync, readdirSync, readFileSync, renameSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import type { JudgedChange } from "../../../src/core/change/judgedChange.js";
import { kotlinUses } from "../../../src/workspace/languages/kotlin/source/kotlinUses.js";
import type { SourceText } from "../../../src/workspace/languages/source/sdkSource.js";
import type { SourceUse } from "../../../src/core/use/sourceUse.js";
import { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";

/** A changed contract: what is told of it, and the SDK that is made from it. */
export interface Variant {
  /** How it is known in complaints. */
  readonly told: string;
  readonly judged: readonly JudgedChange[];
  readonly files: ReadonlyMap<string, string>;
  /** No SDK is made of it, because a query is refused. */
  readonly isRefused?: boolean;
}

/** An app in Kotlin and the SDK that it is written against. */
export interface KotlinTruth {
  readonly app: readonly SourceText[];
  /** The package of the SDK, and the name of its one contract. */
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

/** What the app's source uses of its SDK. */
export function usesOf({ app, contract, sdk }: KotlinTruth, connect: string): SourceUse[] {
  const texts = (start: string): SourceText[] =>
    [...sdk].flatMap(([path, text]) => (path.startsWith(start) ? [{ document: path, text }] : []));
  return kotlinUses(app, { name: "sdk", connect, files: texts(`${contract}/`), others: texts("wire/") });
}

/** How often an app broke, how often it was told, and how often rightly; and every case in which it was wrong. */
export interface Truth {
  readonly breaking: number;
  readonly told: number;
  readonly right: number;
  readonly wrong: readonly string[];
}

/**
 * Compiles the app with each variant, and holds what the compiler says against what was told. Of a variant only the files
 * are compiled that differ; of the others there are classes.
 *
 * @throws Error when the app does not compile with the SDK that it is written against
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
  const wrong: string[] = [];
  const counts = { breaking: 0, told: 0, right: 0 };
  for (const variant of variants) {
    const complaints = variant.isRefused
      ? ["/app/a query is refused"]
      : await complaintsOf(contractFiles(variant.files, truth));
    const inSdk = complaints.find((line) => !line.includes("/app/"));
    if (inSdk !== undefined) wrong.push(`${variant.told}: the SDK does not compile: ${inSdk}`);
    const first = complaints.find((line) => line.includes("/app/"))?.replace(/^.*\/app\//, "");
    const isTold = variant.judged.some(isToldToBreak);
    if (first !== undefined) counts.breaking++;
    if (isTold) counts.told++;
    if (first !== undefined && isTold) counts.right++;
    if ((first !== undefined) === isTold) continue;
    const what = first === undefined ? "told, does not break" : `breaks, not told: ${first}`;
    wrong.push(`${variant.told}: ${what} ${variant.judged.map(shown).join(" ")}`);
  }
  return { ...counts, wrong };
}

/** The sources of the contract's part of an SDK. */
function contractFiles(files: ReadonlyMap<string, string>, { contract }: KotlinTruth): Map<string, string> {
  return new Map([...files].filter(([path]) => path.startsWith(`${contract}/`) && path.endsWith(".kt")));
}

/** Files that declare a sealed type and those that extend it, which Kotlin wants in one module. */
function sealedFamilies(files: ReadonlyMap<string, string>): Set<string>[] {
  return [...files].flatMap(([path, text]) =>
    [...text.matchAll(/^public sealed interface (\w+)/gm)].map(([, name = ""]) => {
      const extending = new RegExp(`^(?:\\)|public data object \\w+) : [^\\n]*\\b${name}\\b`, "m");
      return new Set([path, ...[...files].flatMap(([other, each]) => (extending.test(each) ? [other] : []))]);
    }),
  );
}

/**
 * Moves the classes of some files of Kotlin into folders of their own, so that they can be left out.
 *
 * @returns folders by the path of the source; by "" that of all other classes
 */
function classesByFile(classes: string, sources: ReadonlySet<string>): Map<string, string> {
  const paths = new Map([...sources].map((path) => [basename(path), path]));
  const found = new Map([["", classes]]);
  for (const path of readdirSync(classes, { recursive: true, encoding: "utf8" })) {
    if (!path.endsWith(".class")) continue;
    // A class says the file that it comes of (JVM specification, section 4.7.10).
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

/** That a credential or another server is needed is no matter of a compiler. */
function isToldToBreak({ use, verdict, code }: JudgedChange): boolean {
  return (
    use === "used" && verdict.code === "breaking" && !/^(?:auth\.(?:now-required|scheme\.changed)|server\.)/.test(code)
  );
}

function shown({ code, subject, use, verdict, hits }: JudgedChange): string {
  return `[${code} ${subject} ${use} ${verdict.code} ${hits.map((hit) => hit.owner).join(",")}]`;
}
