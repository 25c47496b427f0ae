import { spawnSync } from "node:child_process";
import { existsSync, readdirSync } from "node:fs";
import { delimiter, join } from "node:path";
import { packageFolder } from "../../files/packageFolder.js";
import type { ExampleApp } from "../languageTools.js";

/** The skipper's app of the demo, for the JVM. */
export const skipperApp: ExampleApp = {
  folder: "skipper",
  title: "The skipper's app is written in Kotlin",
  steps: (root, address) => {
    const toolchain = join(packageFolder(), ".toolchains", "kotlin");
    const compiler = join(toolchain, "node_modules", "kotlin-compiler", "lib", "kotlin-compiler.jar");
    const jars = jarsIn(join(toolchain, "current", "jars"));
    if (spawnSync("java", ["-version"]).status !== 0) return "no JDK is found";
    if (!existsSync(compiler) || jars.length === 0)
      return "no Kotlin compiler is found (`node scripts/toolchains.mjs` gets one into a checkout)";
    const classes = join(root, "classes");
    return [
      {
        title: "Build: the skipper's app compiles against its SDK.",
        command: "java",
        args: [
          ...["-cp", compiler, "org.jetbrains.kotlin.cli.jvm.K2JVMCompiler", "-no-stdlib", "-no-reflect", "-Werror"],
          ...["-cp", jars.join(delimiter), "-d", classes, join(root, "src")],
        ],
        shown: "kotlinc -Werror -d classes src",
      },
      {
        title: "Run: the skipper's app talks to the stand-in server.",
        command: "java",
        args: ["-cp", [classes, ...jars].join(delimiter), "skipper.MainKt", address],
        shown: `java skipper.MainKt ${address}`,
      },
    ];
  },
};

function jarsIn(folder: string): string[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder).flatMap((file) => (file.endsWith(".jar") ? [join(folder, file)] : []));
}
