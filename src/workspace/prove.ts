import { existsSync } from "node:fs";
import { join } from "node:path";
import type { ContractImpact, JudgedChange } from "../core/change/judgedChange.js";
import type { Place } from "../core/problem/place.js";
import type { CompileError } from "../core/use/compileError.js";
import { explainError } from "../core/use/explainErrors.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import { buildSdk } from "./buildSdk.js";
import type { Side } from "./compareWithPin.js";
import { ContractReader } from "./contractReader.js";
import { findSourceUses } from "./findSourceUses.js";
import { checkedApps, configuredChecker } from "./languages/checkedApps.js";
import type { MadeFiles } from "./languages/languageTools.js";
import { outputFolder } from "./project.js";
import type { ProjectTexts } from "./sdkInputs.js";

/** What the compiler says of an app when its SDKs are made from the new contracts. */
export interface Proof {
  /** The impacts, each change with the compile errors that it causes. */
  readonly impacts: readonly ContractImpact[];
  /** New errors that no change explains. */
  readonly unexplained: readonly CompileError[];
  /** Errors that the app has with the SDKs of the old contracts. */
  readonly before: readonly CompileError[];
  /** SDKs in a language whose compiler cannot be asked. */
  readonly unproved: readonly string[];
}

/** The two sides of each contract that is compared. */
export type ProvedSides = ReadonlyMap<string, { readonly before: Side; readonly after: Side }>;

/**
 * Compiles the app with SDKs of the old contracts and with SDKs of the new ones, and puts each error that is new under the
 * change that causes it. Nothing is written into the project.
 */
export async function prove(
  texts: ProjectTexts,
  sides: ProvedSides,
  impacts: readonly ContractImpact[],
): Promise<Proof> {
  const { project } = texts;
  const { apps, unproved } = await appsToCompile(texts, sides);
  const before: CompileError[] = [];
  const uses: SourceUse[] = [];
  for (const [, { before: old }] of sides) {
    const against = { reading: old.reading, isWritten: old.isPinned === true };
    uses.push(...(await findSourceUses(project, against)).uses);
  }
  const changes = impacts.flatMap((impact) => impact.changes);
  const refused = new Map(impacts.flatMap((impact) => [...refusedOperations(impact)]));
  const errors = new Map<JudgedChange, CompileError[]>();
  const unexplained: CompileError[] = [];
  for (const { language: id, run, made, old } of apps) {
    const { language, tools } = await project.session.language(id);
    const compared = tools.proof
      ? await tools.proof.compare(project, made, { old, run })
      : await checkedApps({ project, checker: configuredChecker(run ?? "") }, made, old);
    before.push(...compared.before);
    for (const error of compared.fresh) {
      const change = explainError(error, { changes, uses, refused, namesOf: language.operationNames });
      if (change) errors.set(change, [...(errors.get(change) ?? []), error]);
      else unexplained.push(error);
    }
  }
  return {
    impacts: impacts.map((impact) => ({
      ...impact,
      changes: impact.changes.map((change) => withErrors(change, errors.get(change) ?? [])),
    })),
    unexplained,
    before,
    unproved,
  };
}

/** An app in one language, with the SDKs of both sides. */
interface AppToCompile {
  readonly language: string;
  /** The command that checks it, where the configuration has one. */
  readonly run?: string | undefined;
  readonly made: MadeFiles;
  /** Absent where the SDKs that are written are those of the old contracts. */
  readonly old?: MadeFiles | undefined;
}

/** The apps of the project by what compiles them, each with the SDKs that change. */
async function appsToCompile(
  texts: ProjectTexts,
  sides: ProvedSides,
): Promise<{ readonly apps: readonly AppToCompile[]; readonly unproved: readonly string[] }> {
  const { project } = texts;
  const apps = new Map<string, AppToCompile>();
  const unproved: string[] = [];
  for (const [sdk, { covers, language, proof }] of Object.entries(project.configuration.sdks)) {
    const changed = covers.filter((name) => sides.has(name));
    if (changed.length === 0) continue;
    const { tools } = await project.session.language(language);
    const run = proof?.run;
    if (!tools.proof && run === undefined) {
      unproved.push(sdk);
      continue;
    }
    const key = `${language} ${run ?? ""}`;
    const known = apps.get(key);
    const made = await sdkFiles(texts, sdk, new Map([...sides].map(([name, { after }]) => [name, after])));
    const isWritten = changed.every((name) => {
      const folder = join(outputFolder(project, sdk, project.configuration.sdks[sdk]?.into ?? ""), name);
      return sides.get(name)?.before.isPinned === true && existsSync(folder);
    });
    const old = isWritten
      ? undefined
      : await sdkFiles(texts, sdk, new Map([...sides].map(([name, { before }]) => [name, before])));
    apps.set(key, { language, run, made: together(known?.made, made), old: together(known?.old, old) });
  }
  return { apps: [...apps.values()], unproved };
}

function together<Files extends MadeFiles | undefined>(one: MadeFiles | undefined, other: Files): Files | MadeFiles {
  if (!one || !other) return other ?? (one as Files);
  return { texts: new Map([...one.texts, ...other.texts]), replaced: [...one.replaced, ...other.replaced] };
}

/** The files of an SDK, as one side of its contracts gives them; what other contracts give stays as it is written. */
async function sdkFiles(texts: ProjectTexts, sdk: string, sides: ReadonlyMap<string, Side>): Promise<MadeFiles> {
  const { project } = texts;
  const { covers, into } = project.configuration.sdks[sdk] ?? { covers: [], into: "" };
  const folder = outputFolder(project, sdk, into);
  const reader = new ContractReader(texts);
  for (const [name, { reading }] of sides) reader.instead(name, reading);
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

/** The first folder of a path inside an SDK: a contract's, or the runtime's. */
function folderIn(path: string): string[] {
  return path.includes("/") ? [path.slice(0, path.indexOf("/"))] : [];
}

/** Operations that the new schema refuses, by the change that hits the place which it does not take. */
function refusedOperations({ changes, brokenQueries }: ContractImpact): Map<JudgedChange, string[]> {
  const found = new Map<JudgedChange, string[]>();
  for (const { places } of brokenQueries) {
    for (const change of changes) {
      const hits = change.hits.filter(({ place }) => places.some((each) => meet(each, place)));
      const operations = hits.flatMap((hit) => [hit.owner, ...hit.operations]);
      if (operations.length > 0 && change.verdict.code === "breaking")
        found.set(change, [...(found.get(change) ?? []), ...operations]);
    }
  }
  return found;
}

function meet(a: Place, b: Place): boolean {
  if (!("offset" in a) || !("offset" in b) || a.document !== b.document) return false;
  return a.offset < b.offset + b.length && b.offset < a.offset + a.length;
}

/** What does not compile breaks, whatever was expected of it. */
function withErrors(change: JudgedChange, errors: readonly CompileError[]): JudgedChange {
  if (errors.length === 0) return { ...change, errors };
  return { ...change, errors, use: "used", verdict: { ...change.verdict, code: "breaking" } };
}
