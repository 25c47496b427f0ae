import { existsSync } from "node:fs";
import { join } from "node:path";
import type { ContractImpact, JudgedChange } from "../core/change/judgedChange.js";
import type { Place } from "../core/problem/place.js";
import { problem } from "../core/problem/problem.js";
import type { CompileError } from "../core/use/compileError.js";
import { explainError } from "../core/use/explainErrors.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import { buildSdk } from "./buildSdk.js";
import type { ContractReader } from "./contractReader.js";
import { findSourceUses } from "./findSourceUses.js";
import { exitCodes, Halt } from "./halt.js";
import type { MadeFiles } from "./languages/languageTools.js";
import { outputFolder } from "./project.js";
import type { OpenedProject } from "./openProject.js";

/** What the compiler says of an app when its SDKs are made from the new contracts. */
export interface Proof {
  /** The impacts, each change with the compile errors that it causes. */
  readonly impacts: readonly ContractImpact[];
  /** New errors that no change explains. */
  readonly unexplained: readonly CompileError[];
  /** Errors that the app has with the SDKs as they are. */
  readonly before: readonly CompileError[];
  /** SDKs in a language whose compiler cannot be asked. */
  readonly unproved: readonly string[];
}

/**
 * Compiles the app in memory, with the SDKs as they are written and with what the contracts would give now, and puts
 * each error that is new under the change that causes it. Nothing is written.
 *
 * @throws Halt when an SDK is not written yet, so that there is nothing to compare with
 */
export async function prove(
  project: OpenedProject,
  reader: ContractReader,
  impacts: readonly ContractImpact[],
): Promise<Proof> {
  const { made, unproved } = await madeAnew(project, reader, impacts);
  const before: CompileError[] = [];
  const uses: SourceUse[] = [];
  for (const { contract } of impacts)
    uses.push(...(await findSourceUses(project, { reading: reader.read(contract), isWritten: true })).uses);
  const changes = impacts.flatMap((impact) => impact.changes);
  const refused = new Map(impacts.flatMap((impact) => [...refusedOperations(impact)]));
  const errors = new Map<JudgedChange, CompileError[]>();
  const unexplained: CompileError[] = [];
  for (const [id, files] of made) {
    const { language, tools } = await project.session.language(id);
    const compared = await tools.proof?.compare(project, files);
    before.push(...(compared?.before ?? []));
    for (const error of compared?.fresh ?? []) {
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

/** The files of the SDKs that change, as the contracts would give them now, by language. */
async function madeAnew(
  project: OpenedProject,
  reader: ContractReader,
  impacts: readonly ContractImpact[],
): Promise<{ readonly made: ReadonlyMap<string, MadeFiles>; readonly unproved: readonly string[] }> {
  const made = new Map<string, MadeFiles>();
  const unproved: string[] = [];
  for (const [sdk, { covers, into, language }] of Object.entries(project.configuration.sdks)) {
    if (!impacts.some(({ contract }) => covers.includes(contract))) continue;
    const { tools } = await project.session.language(language);
    if (!tools.proof) {
      unproved.push(sdk);
      continue;
    }
    const folder = outputFolder(project, sdk, into);
    if (!existsSync(folder)) throw notWritten(sdk);
    // What other contracts give stays as it is written.
    const kept = covers.filter((name) => !impacts.some(({ contract }) => contract === name));
    const { files } = await buildSdk(project, sdk, reader);
    const parts = [...new Set([...files.keys()].flatMap((path) => folderIn(path)))].filter(
      (part) => !kept.includes(part),
    );
    const texts = [...files].filter(([path]) => parts.some((part) => path.startsWith(`${part}/`)));
    const known = made.get(language) ?? { texts: new Map<string, string>(), replaced: [] };
    made.set(language, {
      texts: new Map([...known.texts, ...texts.map(([path, text]) => [join(folder, path), text] as const)]),
      replaced: [...known.replaced, ...parts.map((part) => join(folder, part))],
    });
  }
  return { made, unproved };
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

function notWritten(sdk: string): Halt {
  const message = `There is nothing to prove with: the SDK \`${sdk}\` is not written yet.`;
  const hint = "Run `rhema generate` with the contract that the app was written against.";
  return new Halt([problem("sdk.missing", message, { hint })], exitCodes.usage);
}
