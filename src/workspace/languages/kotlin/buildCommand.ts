import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

/**
 * Returns the command that compiles an app of Gradle or Maven, from the files in its folder; undefined if they do not
 * show it.
 */
export function buildCommand(root: string): string | undefined {
  if (existsSync(join(root, "gradlew")))
    return `./gradlew -q ${isAndroid(root) ? "compileDebugKotlin" : "compileKotlin"}`;
  if (existsSync(join(root, "pom.xml"))) return "mvn -q -B compile";
  const isGradle = ["build.gradle.kts", "build.gradle"].some((file) => existsSync(join(root, file)));
  return isGradle ? `gradle -q ${isAndroid(root) ? "compileDebugKotlin" : "compileKotlin"}` : undefined;
}

/** Whether the project's build, or that of a module directly in it, is for Android. */
function isAndroid(root: string): boolean {
  const folders = readdirSync(root, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? [entry.name] : [],
  );
  return ["", ...folders].some((folder) =>
    ["build.gradle.kts", "build.gradle"].some((file) => {
      const path = join(root, folder, file);
      return existsSync(path) && /com\.android\.|android[.-](?:application|library)/.test(readFileSync(path, "utf8"));
    }),
  );
}
