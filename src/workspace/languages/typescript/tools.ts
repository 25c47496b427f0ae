import { existsSync } from "node:fs";
import { createRequire } from "node:module";
import { join, relative, resolve } from "node:path";
import type { SdkSettings } from "../../../core/languages/settings.js";
import type { OwnFormat, TypescriptSettings } from "../../../core/languages/typescript/settings.js";
import { packageFolder } from "../../files/packageFolder.js";
import type { Project } from "../../project/project.js";
import type { AppProof, LanguageTools, UseScanner } from "../languageTools.js";
import { appSources } from "./appSources.js";
import type { CompiledApps } from "./compiledApps.js";
import { importedNames } from "./importedNames.js";
import { importEnding } from "./importEnding.js";

/** Returns the tools of TypeScript, which need files and its compiler. */
export function typescriptTools(): LanguageTools {
  return scriptTools({ index: "index.ts", checksScripts: false });
}

/** A language that TypeScript's compiler reads. */
export interface ScriptLanguage {
  /** The file of an SDK that shows that a contract's part is written. */
  readonly index: string;
  /** Whether plain scripts are checked too. */
  readonly checksScripts: boolean;
}

/**
 * Returns the tools of languages that need TypeScript's compiler. The compiler is loaded only when something is
 * compiled.
 */
export function scriptTools({ index, checksScripts }: ScriptLanguage): LanguageTools {
  let apps: Promise<CompiledApps> | undefined;
  const compiledApps = (): Promise<CompiledApps> =>
    (apps ??= import("./compiledApps.js").then((loaded) => new loaded.CompiledApps(checksScripts)));
  const uses: UseScanner = {
    hasSources: (project) => appSources(project).length > 0,
    isWritten: ({ folder }) => existsSync(join(folder, index)),
    find: async (project, parts, made) => (await compiledApps()).uses(project, parts, made),
    importsFrom: (project, folder) => importedNames(appSources(project), project.root, folder),
  };
  const proof: AppProof = {
    command: { shown: "tsc -p .", args: () => [compilerProgram(), "-p", "."] },
    compare: async (project, made, how) => (await compiledApps()).compare(project, made, how),
    inMemory: async (project, made, old) => (await compiledApps()).inMemory(project, made, old),
  };
  return {
    runtimeFolder: join(packageFolder(), "runtimes", "typescript"),
    settled,
    uses,
    handWritten: {
      sources: appSources,
      find: async (project, parts, operations) => (await compiledApps()).handWritten(project, parts, operations),
    },
    proof,
    performer: { perform: async (call, how) => (await import("./perform.js")).perform(call, how) },
    writer: {
      write: async (project: Project, folder, call, given) =>
        (await import("./writeProgram.js")).writeProgram(project, folder, { call, ...given }),
    },
  };
}

/** The extensions of imports that the app's compiler requires, and the app's modules relative to the SDK's folder. */
function settled(configured: SdkSettings, root: string, folder: string): SdkSettings {
  const { imports, formats, ...others }: TypescriptSettings = configured;
  const seen = Object.entries(formats ?? {}).map(([format, own]): [string, OwnFormat] => {
    const path = relative(folder, resolve(root, own.from)).replaceAll("\\", "/");
    return [format, { ...own, from: path.startsWith(".") ? path : `./${path}` }];
  });
  return {
    ...others,
    imports: imports ?? importEnding(root, folder),
    ...(formats ? { formats: Object.fromEntries(seen) } : {}),
  };
}

function compilerProgram(): string {
  return createRequire(join(packageFolder(), "package.json")).resolve("typescript/lib/tsc.js");
}
