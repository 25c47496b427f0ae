import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import type { ContractImpact, JudgedChange } from "../core/change/judgedChange.js";
import type { Place } from "../core/problem/place.js";
import { problem } from "../core/problem/problem.js";
import type { CompileError } from "../core/use/explainErrors.js";
import type { SourceUse } from "../core/use/sourceUse.js";
import { buildSdk, type ContractReader } from "./buildSdk.js";
import { readSources } from "./findCallUses.js";
import { findSourceUses } from "./findSourceUses.js";
import { exitCodes, Halt } from "./halt.js";
import { isInside, outputFolder, type Project } from "./project.js";

/** What the compiler says of an app when its SDKs are made from the new contracts. */
export interface Proof {
  /** The impacts, each change with the compile errors that it causes. */
  readonly impacts: readonly ContractImpact[];
  /** New errors that no change explains. */
  readonly unexplained: readonly CompileError[];
  /** Errors that the app has with the SDKs as they are. */
  readonly before: readonly CompileError[];
}

/**
 * Compiles the app in memory, with the SDKs as they are written and with what the contracts would give now, and puts
 * each error that is new under the change that causes it. Nothing is written.
 *
 * @throws Halt when an SDK is not written yet, so that there is nothing to compare with
 */
export async function prove(
  project: Project,
  reader: ContractReader,
  impacts: readonly ContractImpact[],
): Promise<Proof> {
  const { appProgram } = await import("./appProgram.js");
  const { filesReaching } = await import("../core/use/filesReaching.js");
  const { compileErrors } = await import("../core/use/compileErrors.js");
  const { explainError } = await import("../core/use/explainErrors.js");
  const sources = readSources(project).map(({ document }) => resolve(project.root, document));
  const old = appProgram(project, { sources });
  const before = compileErrors(old.program, old.documents);
  const known = new Set(before.map(keyOf));
  const texts = new Map<string, string>();
  const replaced: string[] = [];
  for (const [sdk, { covers, into }] of Object.entries(project.configuration.sdks)) {
    if (!impacts.some(({ contract }) => covers.includes(contract))) continue;
    const folder = outputFolder(project, sdk, into);
    if (!existsSync(folder)) throw notWritten(sdk);
    // What other contracts give stays as it is written.
    const parts = ["wire", ...covers.filter((name) => impacts.some(({ contract }) => contract === name))];
    for (const [path, text] of buildSdk(project, sdk, reader).files)
      if (parts.some((part) => path.startsWith(`${part}/`))) texts.set(join(folder, path), text);
    replaced.push(...parts.map((part) => join(folder, part)));
  }
  // What does not import an SDK that is made anew compiles as before.
  const touched = filesReaching(old.program, (name) => replaced.some((folder) => isInside(folder, resolve(name))));
  const now = appProgram(project, { sources, texts, replaced }, old.program);
  const fresh = compileErrors(now.program, now.documents, touched).filter((error) => !known.has(keyOf(error)));
  const uses: SourceUse[] = [];
  for (const { contract } of impacts) uses.push(...((await findSourceUses(project, contract)) ?? []));
  const changes = impacts.flatMap((impact) => impact.changes);
  const refused = new Map(impacts.flatMap((impact) => [...refusedOperations(impact)]));
  const errors = new Map<JudgedChange, CompileError[]>();
  const unexplained: CompileError[] = [];
  for (const error of fresh) {
    const change = explainError(error, { changes, uses, refused });
    if (change) errors.set(change, [...(errors.get(change) ?? []), error]);
    else unexplained.push(error);
  }
  return {
    impacts: impacts.map((impact) => ({
      ...impact,
      changes: impact.changes.map((change) => withErrors(change, errors.get(change) ?? [])),
    })),
    unexplained,
    before,
  };
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

function keyOf({ place, code, message }: CompileError): string {
  return `${place.document} ${String(place.offset)} ${code} ${message}`;
}

function notWritten(sdk: string): Halt {
  const message = `There is nothing to prove with: the SDK \`${sdk}\` is not written yet.`;
  const hint = "Run `rhema generate` with the contract that the app was written against.";
  return new Halt([problem("sdk.missing", message, { hint })], exitCodes.usage);
}
