import { join } from "node:path";
import { packageFolder } from "../../files/packageFolder.js";
import type { LanguageTools } from "../languageTools.js";
import { skipperApp } from "./skipperApp.js";
import { buildCommand } from "./buildCommand.js";
import { placeForSdk } from "./placeForSdk.js";
import { useScanner } from "./useScanner.js";

/** Returns the tools of Swift, which need files. */
export function swiftTools(): LanguageTools {
  return {
    runtimeFolder: join(packageFolder(), "runtimes", "swift", "wire"),
    settled: (configured) => configured,
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
