import { existsSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import type { SdkSettings } from "../../../core/languages/settings.js";
import type { KotlinSettings, Placement } from "../../../core/languages/kotlin/settings.js";
import { packageFolder } from "../../files/packageFolder.js";
import { buildCommand } from "./buildCommand.js";
import { placeForSdk } from "./placeForSdk.js";
import { useScanner } from "./useScanner.js";
import { skipperApp } from "./skipperApp.js";
import type { LanguageTools } from "../languageTools.js";

/** Returns the tools of Kotlin, which need files. */
export function kotlinTools(): LanguageTools {
  return {
    runtimeFolder: join(packageFolder(), "runtimes", "kotlin", "wire"),
    settled,
    place: placeForSdk,
    uses: useScanner(),
    buildCommand,
    example: skipperApp,
    writer: {
      write: async (project, folder, call, given) =>
        (await import("./writeProgram.js")).writeProgram(project, folder, { call, ...given }),
    },
  };
}

function settled(configured: SdkSettings, root: string, folder: string): SdkSettings {
  const settings: KotlinSettings = { ...configured, placement: placementOf(root, folder) };
  return { ...settings };
}

/** The build files in the folder of a module. */
const buildFiles = ["build.gradle.kts", "build.gradle", "pom.xml"];

/** The place of an SDK in the module around it: the closest folder with a build file, otherwise the project's. */
function placementOf(root: string, folder: string): Placement {
  let module = folder === root ? root : dirname(folder);
  while (module !== root && !buildFiles.some((file) => existsSync(join(module, file)))) module = dirname(module);
  const source = slashed(relative(module, folder));
  const [sourceRoot] = /^src\/[^/]+\/(?:kotlin|java)(?=\/|$)/.exec(source) ?? [];
  return {
    source,
    ...(sourceRoot === undefined ? {} : { sourceRoot }),
    project: slashed(relative(module, root)),
  };
}

function slashed(path: string): string {
  return path.replaceAll("\\", "/");
}
