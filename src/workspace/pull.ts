import { ShownTexts } from "../core/problem/shownTexts.js";
import { publicAddress } from "../core/text/secrets.js";
import { gravest, haltOrAsync } from "./project/allOrHalt.js";
import type { ContractImpact } from "../core/change/judge/judgedChange.js";
import { isUrl } from "../core/rest/documentNames.js";
import type { SourceText } from "../core/problem/place.js";
import type { Problem } from "../core/problem/problem.js";
import { readContract } from "../core/readContract.js";
import { compareSides } from "./impact/compareWithPin.js";
import { Side } from "./sources/side.js";
import { readCopy } from "./sources/copies.js";
import { exitCodes, Halt, type ExitCode } from "./project/halt.js";
import { knownParts, readLedger } from "./generate/ledger.js";
import { fetchCopy, remoteSources, saveCopy, type FetchedCopy } from "./sources/obtainCopies.js";
import { readOrigin } from "./configuration/origins.js";
import type { OpenedProject } from "./project/openProject.js";
import { ProjectTexts } from "./generate/sdkInputs.js";
import { sourceText } from "./sources/sources.js";

/** The result of pulling for one contract. */
export interface PulledContract {
  readonly name: string;
  /** "local": it comes from files of the project, and there is nothing to pull. */
  readonly state: "new" | "changed" | "same" | "failed" | "local";
  /** The paths of its copies in the project. */
  readonly copies: readonly string[];
}

export interface PullOutcome {
  readonly contracts: readonly PulledContract[];
  /** The changes from the old copies to the new ones. */
  readonly impacts: readonly ContractImpact[];
  readonly problems: readonly Problem[];
  readonly exitCode: ExitCode;
  readonly texts: ShownTexts;
}

export interface PullOptions {
  readonly contracts: readonly string[];
  /** Only report whether the origin changed. */
  readonly checkOnly: boolean;
  /** Called with the changes of a new copy before it is saved. */
  readonly onImpact?: (impact: ContractImpact, texts: ShownTexts) => void;
}

/**
 * Replaces the copies of contracts from a URL, a GraphQL endpoint or a command with their current texts. A server with
 * versions is asked only for a newer one.
 *
 * @throws Halt (unreadable) if a contract is not available and has no copy
 */
export async function pull(project: OpenedProject, options: PullOptions): Promise<PullOutcome> {
  const contracts: PulledContract[] = [];
  const problems: Problem[] = [];
  const impacts: ContractImpact[] = [];
  const others = new Map<string, string>();
  const texts = new ProjectTexts(project);
  const shown = new ShownTexts(
    (document) => others.get(document) ?? texts.find(document) ?? sourceText(project, document),
  );
  const halts: Halt[] = [];
  for (const name of options.contracts) {
    const pulled = await haltOrAsync(() => pullOne(project, name));
    if (pulled instanceof Halt) {
      halts.push(pulled);
      problems.push(...pulled.problems);
      contracts.push({ name, state: "failed", copies: copyPaths(project, name) });
      continue;
    }
    problems.push(...pulled.problems);
    const { fresh } = pulled;
    if (pulled.state === "changed") {
      const impact = await impactOf(project, name, { fresh, texts, others });
      if (impact) {
        impacts.push(impact);
        options.onImpact?.(impact, shown);
      }
    }
    if (!options.checkOnly)
      for (const [address, copy] of fresh) saveCopy(project, name, { address, fetchedCopy: copy });
    contracts.push({ name, state: pulled.state, copies: copyPaths(project, name) });
  }
  const isFailed = contracts.some(({ state }) => state === "failed");
  const isMoved = options.checkOnly && contracts.some(({ state }) => state === "changed" || state === "new");
  const found = isFailed || isMoved ? exitCodes.findings : exitCodes.done;
  const exitCode = gravest([found, ...halts.map((halt) => halt.exitCode)]);
  return { contracts, impacts, problems, exitCode, texts: shown };
}

function addressesOf(project: OpenedProject, name: string): (string | undefined)[] {
  const settings = project.configuration.contracts[name];
  if (!settings) return [];
  const parts = (knownParts(readLedger(project)).get(name) ?? []).filter(isUrl);
  return [...new Set([...remoteSources(settings), ...parts])];
}

function copyPaths(project: OpenedProject, name: string): string[] {
  return addressesOf(project, name).flatMap((address) => readCopy(project, name, address)?.document ?? []);
}

type Fresh = ReadonlyMap<string | undefined, FetchedCopy>;

async function pullOne(
  project: OpenedProject,
  name: string,
): Promise<Pick<PulledContract, "state"> & { readonly fresh: Fresh; readonly problems: readonly Problem[] }> {
  const addresses = addressesOf(project, name);
  const fresh = new Map<string | undefined, FetchedCopy>();
  const problems: Problem[] = [];
  let isNew = false;
  for (const address of addresses) {
    const copy = readCopy(project, name, address);
    const known = address === undefined ? undefined : readOrigin(project, name, { address, copy: copy?.text });
    const found = await fetchCopy(project, name, { address, known });
    if ("problem" in found)
      problems.push(failure(project, name, { problem: found.problem, hasCopy: copy !== undefined }));
    else if ("text" in found) {
      isNew ||= copy === undefined;
      // An unchanged one is saved too, because its server may have another version for it.
      fresh.set(address, found);
    }
  }
  const isChanged = [...fresh].some(
    ([address, { text }]) => trimmed(readCopy(project, name, address)?.text) !== trimmed(text),
  );
  const state =
    addresses.length === 0 ? "local" : problems.length > 0 ? "failed" : isNew ? "new" : isChanged ? "changed" : "same";
  return { state, fresh, problems };
}

function trimmed(text: string | undefined): string | undefined {
  return text?.replace(/\r\n/g, "\n").trimEnd();
}

/** Without a copy, a failure is an error; with one, it is a warning. */
function failure(
  project: OpenedProject,
  name: string,
  { problem, hasCopy }: { readonly problem: Problem; readonly hasCopy: boolean },
): Problem {
  const place = { document: project.configName, pointer: `/contracts/${name}/from` };
  const texts = new Map([[project.configName, project.configText]]);
  if (!hasCopy) throw new Halt([{ ...problem, places: [place] }], exitCodes.unreadable, texts);
  return { ...problem, level: "warning", places: [place], why: "Rhema keeps the existing copy." };
}

/** The changes of fresh copies; undefined if one side cannot be read, which `generate` reports. */
async function impactOf(
  project: OpenedProject,
  name: string,
  {
    fresh,
    texts,
    others,
  }: { readonly fresh: Fresh; readonly texts: ProjectTexts; readonly others: Map<string, string> },
): Promise<ContractImpact | undefined> {
  await texts.readHosts([name]);
  const [old, now] = [remoteTexts(project, name), remoteTexts(project, name, fresh)];
  const before = sideOf(name, old, "the copy");
  const after = sideOf(name, now, "now");
  if (before?.reading.contract.protocol !== after?.reading.contract.protocol) return undefined;
  for (const { document, text } of [...old, ...now]) others.set(document, text);
  return before && after && compareSides(name, [before, after], { session: project.session, texts });
}

/** The texts of a remote contract: its copies, or the fetched texts in their place. */
function remoteTexts(project: OpenedProject, name: string, fresh?: Fresh): SourceText[] {
  return addressesOf(project, name).flatMap((address) => {
    const copy = readCopy(project, name, address);
    const text = fresh?.get(address)?.text ?? copy?.text;
    const document = copy?.document ?? address ?? name;
    const base = address === undefined ? {} : { base: publicAddress(address) };
    return text === undefined ? [] : [{ document: fresh ? `${document} (new)` : document, text, ...base }];
  });
}

function sideOf(name: string, sources: readonly SourceText[], label: string): Side | undefined {
  const reading = readContract(name, sources);
  const { contract } = reading;
  return contract && new Side({ ...reading, contract }, { label });
}
