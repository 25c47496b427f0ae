import { existsSync } from "node:fs";
import { join } from "node:path";
import { buildSdk } from "../generate/buildSdk.js";
import type { Side } from "../sources/side.js";
import { ContractReader } from "../sources/contractReader.js";
import type { MadeFiles } from "../languages/languageTools.js";
import { outputFolder } from "../project/project.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** The two sides of each contract that is compared. */
export type ComparedSides = ReadonlyMap<string, { readonly before: Side; readonly after: Side }>;

/** An app in one language, with the SDKs of both sides. */
export interface AppToCompile {
  readonly language: string;
  readonly sdks: readonly string[];
  /** The command that checks it, if the configuration has one. */
  readonly run?: string | undefined;
  readonly made: MadeFiles;
  /** Absent if the SDKs on disk are those of the old contracts. */
  readonly old?: MadeFiles | undefined;
}

/**
 * Returns the apps of the project by compiler, each with the SDKs that change.
 *
 * @returns the apps, and the SDKs in languages without a compiler to run
 */
export async function appsToCompile(
  texts: ProjectTexts,
  sides: ComparedSides,
): Promise<{ readonly apps: readonly AppToCompile[]; readonly unproved: readonly string[] }> {
  const { project } = texts;
  const apps = new Map<string, AppToCompile>();
  const unproved: string[] = [];
  for (const [sdk, { covers, language, proof }] of Object.entries(project.configuration.sdks)) {
    const changed = covers.filter((name) => sides.has(name));
    if (changed.length === 0) continue;
    const { tools, language: printer } = await project.session.language(language);
    const run = proof?.run ?? tools.buildCommand?.(project.root);
    if (!tools.proof && run === undefined) {
      unproved.push(sdk);
      continue;
    }
    const key = `${language} ${run ?? ""}`;
    const known = apps.get(key);
    const made = await sdkFiles(texts, sdk, new Map([...sides].map(([name, { after }]) => [name, after])));
    const isWritten = changed.every((name) => {
      const { into = "", settings = {} } = project.configuration.sdks[sdk] ?? {};
      const folder = join(outputFolder(project, sdk, into), printer.folder(name, settings));
      return sides.get(name)?.before.isPinned === true && existsSync(folder);
    });
    const old = isWritten
      ? undefined
      : await sdkFiles(texts, sdk, new Map([...sides].map(([name, { before }]) => [name, before])));
    apps.set(key, {
      language,
      sdks: [...(known?.sdks ?? []), sdk],
      run,
      made: together(known?.made, made),
      old: together(known?.old, old),
    });
  }
  return { apps: [...apps.values()], unproved };
}

function together<Files extends MadeFiles | undefined>(one: MadeFiles | undefined, other: Files): Files | MadeFiles {
  if (!one || !other) return other ?? (one as Files);
  return { texts: new Map([...one.texts, ...other.texts]), replaced: [...one.replaced, ...other.replaced] };
}

/** The files of an SDK with one side of its contracts. The parts of other contracts stay as written. */
async function sdkFiles(texts: ProjectTexts, sdk: string, sides: ReadonlyMap<string, Side>): Promise<MadeFiles> {
  const { project } = texts;
  const { covers, into } = project.configuration.sdks[sdk] ?? { covers: [], into: "" };
  const folder = outputFolder(project, sdk, into);
  const reader = new ContractReader(texts);
  for (const [name, side] of sides) reader.instead(name, side);
  const kept = covers.filter((name) => !sides.has(name) && existsSync(join(folder, name)));
  const { files } = await buildSdk(project, sdk, reader);
  const parts = [...new Set([...files.keys()].flatMap((path) => folderIn(path)))].filter(
    (part) => !kept.includes(part),
  );
  return {
    texts: new Map(
      [...files]
        .filter(([path]) => parts.some((part) => path.startsWith(`${part}/`)) || !existsSync(join(folder, path)))
        .map(([path, text]) => [join(folder, path), text]),
    ),
    replaced: parts.map((part) => join(folder, part)),
  };
}

/** The first folder of a path inside an SDK: that of a contract or of the runtime. */
function folderIn(path: string): string[] {
  return path.includes("/") ? [path.slice(0, path.indexOf("/"))] : [];
}
