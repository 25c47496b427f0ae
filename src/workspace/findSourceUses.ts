import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import { contractNames } from "../core/languages/typescript/identifiers.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import { readSources } from "./findCallUses.js";
import { isInside, outputFolder, type Project } from "./project.js";

/**
 * Where the app's source depends on the SDK of a contract, by the compiler's knowledge. The compiler is only loaded when
 * there is an SDK and source beside it.
 *
 * @returns undefined when no SDK of the contract is written yet
 */
export async function findSourceUses(project: Project, contract: string): Promise<SourceUse[] | undefined> {
  const folders = sdkFolders(project, contract);
  if (folders.length === 0) return undefined;
  const app = await compiledApp(project);
  const { sourceUses } = await import("../core/use/sourceUses.js");
  return folders.flatMap((folder) =>
    sourceUses({
      program: app.program,
      isSdkFile: (name) => isInside(folder, resolve(name)),
      connect: contractNames(contract).connect,
      documentOf: (name) => app.documents.get(name),
    }),
  );
}

/** Folders of a contract inside the SDKs that are written. */
function sdkFolders(project: Project, contract: string): string[] {
  return Object.entries(project.configuration.sdks)
    .filter(([, { covers }]) => covers.includes(contract))
    .map(([sdk, { into }]) => join(outputFolder(project, sdk, into), contract))
    .filter((folder) => existsSync(join(folder, "index.ts")));
}

type CompiledApp = Awaited<ReturnType<typeof compile>>;

/** One program for all contracts of a project. */
const compiled = new WeakMap<Project, Promise<CompiledApp>>();

function compiledApp(project: Project): Promise<CompiledApp> {
  const known = compiled.get(project) ?? compile(project);
  compiled.set(project, known);
  return known;
}

async function compile(project: Project) {
  const { appProgram } = await import("./appProgram.js");
  const sources = readSources(project).map(({ document }) => resolve(project.root, document));
  return appProgram(project, { sources });
}
