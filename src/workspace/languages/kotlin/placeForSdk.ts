import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { globSync } from "tinyglobby";
import { packageSegment } from "../../../core/languages/kotlin/names/identifiers.js";
import { words } from "../../../core/text/words.js";
import type { PlaceForSdk } from "../languageTools.js";

/** A folder with a build file. */
interface Module {
  /** Relative to the project; "" for the project's own. */
  readonly folder: string;
  readonly build: string;
}

/**
 * Returns the place of an SDK in an Android or JVM project: the sources of its app, in a package inside the app's.
 *
 * @param root the absolute path of the project
 * @param sdk the SDK's name
 */
export function placeForSdk(root: string, sdk: string): PlaceForSdk {
  const [module = { folder: "", build: "" }] = modulesOf(root).sort((a, b) => rank(a) - rank(b));
  const sources = sourceFolder(root, module);
  const own = appPackage(root, module, sources);
  const segment = packageSegment(words(sdk).join("").toLowerCase() || "sdk");
  const namespace = own === undefined ? segment : `${own}.${segment}`;
  const path = [sources, ...namespace.split(".")].join("/");
  return { into: existsSync(join(root, path)) ? `${path}/sdk` : path, settings: { namespace } };
}

function modulesOf(root: string): Module[] {
  const found = globSync(["**/build.gradle.kts", "**/build.gradle", "**/pom.xml"], {
    cwd: root,
    ignore: ["**/node_modules/**", "**/.*/**", "**/{build,out,target,buildSrc}/**"],
    deep: 5,
  }).sort((a, b) => a.length - b.length || (a < b ? -1 : 1));
  return found.map((path) => {
    const folder = dirname(path);
    return { folder: folder === "." ? "" : folder, build: readFileSync(join(root, path), "utf8") };
  });
}

/** An app comes before a library, and compiled modules before those that only contain modules. */
function rank({ build }: Module): number {
  if (/android[.-]application/i.test(build) && !/apply\s*\(?\s*false/.test(build)) return 0;
  if (/^\s*(?:application\b|id\s*\(?\s*["']application["'])|mainClass|<mainClass>/m.test(build)) return 1;
  if (/android[.-]library/i.test(build) && !/apply\s*\(?\s*false/.test(build)) return 2;
  return build.includes("dependencies") ? 3 : 4;
}

const sourceFolders = ["src/main/kotlin", "src/androidMain/kotlin", "src/jvmMain/kotlin", "src/main/java"];

function sourceFolder(root: string, { folder }: Module): string {
  const below = (path: string): string => (folder === "" ? path : `${folder}/${path}`);
  return below(sourceFolders.find((path) => existsSync(join(root, below(path)))) ?? "src/main/kotlin");
}

/** The package of an app: that of its build, otherwise the folder of its sources. */
function appPackage(root: string, { folder, build }: Module, sources: string): string | undefined {
  const manifest = join(root, folder, "src/main/AndroidManifest.xml");
  const said = [
    /\bnamespace\s*(?:=|\()?\s*["']([\w.]+)["']/.exec(build)?.[1],
    /\bapplicationId\s*(?:=|\()?\s*["']([\w.]+)["']/.exec(build)?.[1],
    existsSync(manifest) ? /\bpackage\s*=\s*"([\w.]+)"/.exec(readFileSync(manifest, "utf8"))?.[1] : undefined,
    packageOfSources(root, sources),
    /^\s*group\s*=?\s*["']([\w.]+)["']/m.exec(build)?.[1],
    /<groupId>([\w.]+)<\/groupId>/.exec(build.replace(/<(parent|dependencies|build)>[^]*?<\/\1>/g, ""))?.[1],
  ];
  return said.find((each) => each !== undefined && isPackage(each));
}

function isPackage(text: string): boolean {
  return /^[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)*$/.test(text);
}

/** The package with the fewest parts in the source files. */
function packageOfSources(root: string, sources: string): string | undefined {
  const files = globSync(["**/*.kt", "**/*.java"], { cwd: join(root, sources) }).sort();
  const found = files.slice(0, mostLookedAt).flatMap((path) => {
    const text = readFileSync(join(root, sources, path), "utf8");
    return /^\s*package\s+([\w.]+)/m.exec(text)?.[1] ?? [];
  });
  return found.sort((a, b) => a.split(".").length - b.split(".").length || (a < b ? -1 : 1))[0];
}

const mostLookedAt = 200;
