import { ShownTexts } from "../../core/problem/shownTexts.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { ContractReader } from "../sources/contractReader.js";
import type { Whereabouts } from "../project/whereabouts.js";
import { allOrHalt } from "../project/allOrHalt.js";
import { compareSides, readSide } from "./compareWithPin.js";
import type { Side } from "../sources/side.js";
import { exitCodes, Halt } from "../project/halt.js";
import { chosenContracts } from "../configuration/chosenContracts.js";
import type { OpenedProject } from "../project/openProject.js";
import type { Proof } from "./prove.js";
import { releaseImpacts, type ReleaseImpact } from "./releases.js";
import { allShared, releaseShares } from "./releaseShares.js";
import { servedReleases, withUsers, type ReleasedImpact, type Served } from "../../core/change/judge/releasedUsers.js";
import { usedCopies, type UsedCopy } from "../sources/copyAge.js";
import { beginSourceUses } from "../uses/findSourceUses.js";
import { freshReader } from "../sources/freshReader.js";
import { ProjectTexts } from "../generate/sdkInputs.js";
import { sideTexts } from "./sides.js";
import { sourceText } from "../sources/sources.js";

export interface ImpactOptions {
  /** Names of contracts; all if empty. */
  readonly contracts: readonly string[];
  /** The old side, in place of the pin: a file, URL, release or `git:REVISION`. */
  readonly before?: string | undefined;
  /** The new side, in place of the current contract. */
  readonly after?: string | undefined;
  /** Whether remote contracts are fetched again instead of using their copies. Nothing is saved. */
  readonly fresh?: boolean | undefined;
  /** Whether the gate counts shares of users. */
  readonly countsUsers?: boolean | undefined;
  /** Whether the app is also compiled with the SDK of the new contract. */
  readonly prove?: boolean | undefined;
}

export interface ImpactOutcome {
  readonly impacts: readonly ContractImpact[];
  /** The effects on released apps. */
  readonly releases: readonly ReleasedImpact[];
  /** The release from which on nothing breaks; absent if no release is known. */
  readonly served?: Served | undefined;
  /** Contracts without a pin. */
  readonly unpinned: readonly string[];
  /** The copies of remote contracts that were used. */
  readonly copies: readonly UsedCopy[];
  /** Warnings about what could not be checked. */
  readonly problems: readonly Problem[];
  /** With `prove`: compile errors that no change explains, and those that already existed. */
  readonly proof?: Pick<Proof, "unexplained" | "before" | "unproved">;
  readonly beforeTexts: ShownTexts;
  readonly afterTexts: ShownTexts;
}

/**
 * Compares contracts and adds the effect on the project.
 *
 * @param cwd the folder to which relative paths in options refer
 * @throws Halt for unknown names or unreadable contracts
 */
export async function impact(project: OpenedProject, cwd: string, options: ImpactOptions): Promise<ImpactOutcome> {
  const texts = new ProjectTexts(project);
  const reader = new ContractReader(texts);
  const others = new Map<string, string>();
  const names = comparedContracts(project, options);
  await texts.readHosts(names);
  if (options.before === undefined) for (const name of names) await beginSourceUses(project, name);
  if (options.after === undefined) allOrHalt(names, (name) => reader.read(name));
  const impacts: ContractImpact[] = [];
  const sides = new Map<string, { before: Side; after: Side }>();
  const releases: ReleaseImpact[] = [];
  const known = options.before === undefined ? await releaseShares(project) : [];
  if (options.countsUsers === true) allShared(known);
  const unpinned: string[] = [];
  const problems: Problem[] = [];
  const copied: UsedCopy[] = [];
  const load = async (name: string, spec: string): Promise<Side | undefined> => {
    const side = await sideTexts(project, name, { spec, cwd });
    if (!side && spec !== "pin") throw nothingThere(name, spec);
    for (const { document, text } of side?.texts ?? []) others.set(document, text);
    return side && readSide(name, side.texts, { label: side.label, isPinned: spec === "pin" });
  };
  for (const name of names) {
    const before = await load(name, options.before ?? "pin");
    const asked = options.fresh === true && options.after === undefined ? await freshReader(project, name) : undefined;
    for (const { document, text } of asked?.reader.texts.contract(name) ?? []) others.set(document, text);
    problems.push(...(asked?.problems ?? []));
    const after = options.after === undefined ? (asked?.reader ?? reader).side(name) : await load(name, options.after);
    if (options.after === undefined && asked?.isFetched !== true) copied.push(...usedCopies(project, [name]));
    if (!before || !after) {
      unpinned.push(name);
      continue;
    }
    sides.set(name, { before, after });
    impacts.push(await compareSides(name, sameProtocol(name, [before, after]), { session: project.session, texts }));
    if (options.before !== undefined) continue;
    const ofReleases = await releaseImpacts(project, name, { now: after, releases: known });
    for (const each of ofReleases) for (const [document, text] of each.texts) others.set(document, text);
    releases.push(...ofReleases);
  }
  const shown = new ShownTexts(
    (document) => others.get(document) ?? texts.find(document) ?? sourceText(project, document),
  );
  const outcome = {
    releases: withUsers(releases),
    served: servedReleases(known, releases),
    unpinned,
    problems,
    copies: copied,
    beforeTexts: shown,
    afterTexts: shown,
  };
  if (options.prove !== true) return { impacts, ...outcome };
  const { prove } = await import("./prove.js");
  const { impacts: proved, unexplained, before, unproved } = await prove(texts, sides, impacts);
  return { impacts: proved, proof: { unexplained, before, unproved }, ...outcome };
}

function nothingThere(contract: string, spec: string): Halt {
  const message = `\`${spec}\` contains neither a pin nor a file of the contract \`${contract}\`.`;
  const hint = "Name a revision after the contract was added. The folder .rhema must be committed.";
  return new Halt([problem("revision.empty", message, { hint })], exitCodes.unreadable);
}

/** Compares two files or URLs without a project: the differences, without their uses. */
export async function impactOfFiles(
  { folder: cwd, session }: Pick<Whereabouts, "folder" | "session">,
  before: string,
  after: string,
): Promise<ImpactOutcome> {
  const name = (after.split(/[\\/]/).pop() ?? after).replace(/\.[^.]*$/, "");
  const texts = new Map<string, string>();
  const load = async (spec: string): Promise<Side> => {
    const found = (await sideTexts(undefined, name, { spec, cwd }))?.texts ?? [];
    for (const { document, text } of found) texts.set(document, text);
    return readSide(name, found, { label: spec });
  };
  const sides = [await load(before), await load(after)] as const;
  const impacts = [await compareSides(name, sameProtocol(name, sides), { session, texts: undefined })];
  const shown = new ShownTexts((document) => texts.get(document));
  return { impacts, releases: [], unpinned: [], copies: [], problems: [], beforeTexts: shown, afterTexts: shown };
}

function sameProtocol(name: string, sides: readonly [Side, Side]): readonly [Side, Side] {
  const [before, after] = sides;
  const from = before.reading.contract.protocol;
  const to = after.reading.contract.protocol;
  if (from === to) return sides;
  const words = { rest: "REST", graphql: "GraphQL" };
  throw new Halt(
    [
      problem(
        "contract.kind",
        `\`${name}\` was a ${words[from]} contract and is a ${words[to]} one. They cannot be compared.`,
      ),
    ],
    exitCodes.usage,
  );
}

function comparedContracts(project: OpenedProject, { contracts, before, after }: ImpactOptions): string[] {
  const chosen = chosenContracts(project, contracts);
  if (chosen.length > 1 && (before !== undefined || after !== undefined)) {
    throw new Halt(
      [
        problem("sdk.unknown", "--before and --after apply to one contract, but several are configured.", {
          hint: `Name one: ${chosen.join(", ")}.`,
        }),
      ],
      exitCodes.usage,
    );
  }
  return chosen;
}
