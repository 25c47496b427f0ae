import { spawn, spawnSync, type ChildProcessWithoutNullStreams } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, dirname, join } from "node:path";
import { createInterface } from "node:readline";
import { packageRoot } from "../packageRoot.js";

const toolchain = join(packageRoot, ".toolchains/kotlin");
const compilerJar = join(toolchain, "node_modules/kotlin-compiler/lib/kotlin-compiler.jar");

/** Returns whether there is a Kotlin compiler; `node scripts/toolchains.mjs` installs it. */
export const hasKotlin = existsSync(compilerJar) && jarsIn("current").length > 0;

/**
 * Reports what is left out without a compiler. A run that must be complete fails instead.
 *
 * @returns whether there is one
 */
export function canCompileKotlin(what: string): boolean {
  if (hasKotlin) return true;
  if (process.env["CI"] === "true") throw new Error(`There is no Kotlin compiler: ${what} cannot be tested.`);
  process.stderr.write(
    `Left out, because there is no Kotlin compiler (node scripts/toolchains.mjs gets it): ${what}\n`,
  );
  return false;
}

function jarsIn(name: string): string[] {
  const folder = join(toolchain, name, "jars");
  return existsSync(folder)
    ? readdirSync(folder).flatMap((file) => (file.endsWith(".jar") ? [join(folder, file)] : []))
    : [];
}

/** A temporary folder with sources. */
function written(files: ReadonlyMap<string, string>): string {
  const folder = mkdtempSync(join(tmpdir(), "kotlin-"));
  for (const [path, text] of files) {
    const whole = join(folder, "source", path);
    mkdirSync(dirname(whole), { recursive: true });
    writeFileSync(whole, text);
  }
  return folder;
}

/** Compiles sources with the oldest supported compiler and libraries. Returns its errors. */
export function compileWithOldest(files: ReadonlyMap<string, string>): string {
  const folder = written(files);
  const jars = jarsIn("oldest").join(delimiter);
  const { stdout, stderr, status } = spawnSync(
    "java",
    [
      ...["-Xmx2g", "-cp", jars, "org.jetbrains.kotlin.cli.jvm.K2JVMCompiler"],
      ...["-no-stdlib", "-no-reflect", "-Xjdk-release=8", "-Xexplicit-api=strict", "-Werror"],
      ...["-cp", jars, "-d", join(folder, "classes"), join(folder, "source")],
    ],
    { encoding: "utf8" },
  );
  return status === 0 ? "" : stdout + stderr;
}

/** The result of a compilation, or of a program. */
export interface JvmResult {
  readonly isFine: boolean;
  readonly printed: string;
}

/** A warm JVM that compiles Kotlin and runs the result. */
export class KotlinCompiler {
  private readonly process: ChildProcessWithoutNullStreams;
  private readonly waiting: ((result: JvmResult) => void)[] = [];
  private errors = "";

  constructor() {
    const server = join(packageRoot, "test/support/kotlin/CompilerServer.java");
    this.process = spawn("java", ["-Xmx3g", "-Xss8m", "-cp", compilerJar, server], { stdio: "pipe" });
    this.process.stderr.on("data", (text: Buffer) => (this.errors += text.toString()));
    createInterface({ input: this.process.stdout }).on("line", (line) => {
      const [word, printed = ""] = line.split("\t");
      this.waiting.shift()?.({ isFine: word === "ok", printed: Buffer.from(printed, "base64").toString("utf8") });
    });
    process.on("exit", () => this.process.kill());
    this.process.on("exit", () => {
      for (const resolve of this.waiting) resolve({ isFine: false, printed: `The JVM ended. ${this.errors}` });
    });
  }

  /** The JVM of this process: starting one takes seconds, and it becomes faster the longer it runs. */
  static shared(): KotlinCompiler {
    return (KotlinCompiler.running ??= new KotlinCompiler());
  }

  private static running: KotlinCompiler | undefined;

  close(): void {
    this.process.stdin.end();
  }

  /**
   * Compiles sources, with warnings as errors.
   *
   * @param files texts by path
   * @param libraries folders of classes that they use
   * @param friends folders of classes in the same module, so that internal classes can be used too
   */
  async compile(
    files: ReadonlyMap<string, string>,
    {
      libraries = [],
      friends = [],
      isStrict = true,
    }: {
      readonly libraries?: readonly string[];
      readonly friends?: readonly string[];
      readonly isStrict?: boolean;
    } = {},
  ): Promise<JvmResult & { readonly classes: string }> {
    const folder = written(files);
    const classes = join(folder, "classes");
    const words = [
      "compile",
      "-no-stdlib",
      "-no-reflect",
      "-Xjdk-release=8",
      ...(isStrict ? ["-Xexplicit-api=strict", "-Werror"] : []),
      "-language-version",
      "2.1",
      "-Xsuppress-version-warnings",
      "-cp",
      [...jarsIn("current"), ...libraries, ...friends].join(delimiter),
      ...(friends.length > 0 ? [`-Xfriend-paths=${friends.join(",")}`] : []),
      "-d",
      classes,
      join(folder, "source"),
    ];
    return { ...(await this.ask(words)), classes };
  }

  /** Loads every class of a folder. */
  load(classes: string, libraries: readonly string[] = []): Promise<JvmResult> {
    return this.ask(["load", [...jarsIn("current"), ...libraries].join(delimiter), classes]);
  }

  /** Runs the `main` of a class. */
  run(program: string, classes: readonly string[], given: readonly string[] = []): Promise<JvmResult> {
    return this.ask(["run", [...jarsIn("current"), ...classes].join(delimiter), program, ...given]);
  }

  private ask(words: readonly string[]): Promise<JvmResult> {
    return new Promise((resolve) => {
      this.waiting.push(resolve);
      this.process.stdin.write(`${words.join("\t")}\n`);
    });
  }
}
