import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import { contractNames } from "../core/languages/typescript/identifiers.js";
import type { ContractReading } from "../core/readContract.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import type { AppFiles } from "./appProgram.js";
import { buildSdk, ContractReader } from "./buildSdk.js";
import { readSources } from "./findCallUses.js";
import { isInside, outputFolder, type Project } from "./project.js";
import { ProjectTexts } from "./sdkInputs.js";

/**
 * Where the app's source depends on the SDK of a contract, by the compiler's knowledge. The compiler is only loaded when
 * there is an SDK and source beside it.
 *
 * @param made the contract to make the SDK from in memory, where the one that is written was made from another: what is
 * gone cannot be found with an SDK that does not have it any more
 * @returns undefined when no SDK of the contract is written, and none is made
 */
export async function findSourceUses(
  project: Project,
  contract: string,
  made?: ContractReading,
): Promise<SourceUse[] | undefined> {
  const folders = sdkFolders(project, contract).filter(
    (folder) => made !== undefined || existsSync(join(folder, "index.ts")),
  );
  if (folders.length === 0) return undefined;
  const app = await (made ? compile(project, await filesOf(project, contract, made)) : compiledApp(project));
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

/** Folders of a contract inside the SDKs that cover it. */
function sdkFolders(project: Project, contract: string): string[] {
  return covering(project, contract).map(([sdk, { into }]) => join(outputFolder(project, sdk, into), contract));
}

function covering({ configuration }: Project, contract: string) {
  return Object.entries(configuration.sdks).filter(([, { covers }]) => covers.includes(contract));
}

/** The files that a contract gives its SDKs, in the place of those that are written; what others give stays. */
async function filesOf(project: Project, contract: string, made: ContractReading): Promise<Omit<AppFiles, "sources">> {
  const texts = new Map<string, string>();
  const replaced: string[] = [];
  for (const [sdk, settings] of covering(project, contract)) {
    const folder = outputFolder(project, sdk, settings.into);
    const sdks = { [sdk]: { ...settings, covers: [contract] } };
    const alone = { ...project, configuration: { ...project.configuration, sdks } };
    const inputs = new ProjectTexts(alone);
    await inputs.readHosts([contract]);
    const reader = new ContractReader(inputs).instead(contract, made);
    for (const [path, text] of buildSdk(alone, sdk, reader).files)
      if (path.startsWith(`${contract}/`)) texts.set(join(folder, path), text);
    replaced.push(join(folder, contract));
  }
  return { texts, replaced };
}

type CompiledApp = Awaited<ReturnType<typeof compile>>;

/** One program for all contracts of a project. */
const compiled = new WeakMap<Project, Promise<CompiledApp>>();

function compiledApp(project: Project): Promise<CompiledApp> {
  const known = compiled.get(project) ?? compile(project, {});
  compiled.set(project, known);
  return known;
}

async function compile(project: Project, files: Omit<AppFiles, "sources">) {
  const { appProgram } = await import("./appProgram.js");
  const sources = readSources(project).map(({ document }) => resolve(project.root, document));
  return appProgram(project, { sources, ...files });
}
