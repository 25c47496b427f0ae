import { ShownTexts } from "../../core/problem/shownTexts.js";
import { existsSync } from "node:fs";
import { join } from "node:path";
import { holdsAny, isHeld, type Gate } from "../../core/change/judge/gate.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { isUrl } from "../../core/rest/documentNames.js";
import { didYouMean } from "../../core/text/nearest.js";
import { gravest, haltOrAsync } from "../project/allOrHalt.js";
import { exitCodes, Halt } from "../project/halt.js";
import { knownParts, ledgerPath, ledgerText, readLedger, type Ledger, type LedgerEntry } from "./ledger.js";
import { editorsPath } from "./editorsPath.js";
import type { GenerateOptions, GenerateOutcome, SdkOutcome } from "./generateOutcome.js";
import { folderHashes, foreignFiles, outputState, type FolderHashes } from "./outputState.js";
import { displayPath, outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import type { Obtained } from "../sources/obtainCopies.js";
import { inputsHash, ProjectTexts } from "./sdkInputs.js";
import { sourceList, sourceText } from "../sources/sources.js";
import { errorCode, hashOf, normalized } from "../files/textFile.js";
import { finishWriting, performWriting, TakenBack } from "../files/writing.js";
import type { BuiltSdk } from "./buildSdk.js";
import type { ContractReader } from "../sources/contractReader.js";
import { sweepUnfinished } from "../files/wholeFile.js";

/**
 * Brings the SDKs of a project up to date. Nothing is written for an SDK with errors.
 *
 * @throws Halt for unknown names
 */
export async function generate(project: OpenedProject, options: GenerateOptions): Promise<GenerateOutcome> {
  const completedEarlier = options.dryRun ? false : guardWrites(".rhema", () => finishWriting(project));
  // A killed `init` may have left incomplete files.
  if (!options.dryRun)
    for (const name of [project.configName, "package.json"]) sweepUnfinished(join(project.root, name));
  const names = chosenSdks(project, options.sdks);
  let ledger = readLedger(project);
  const copies = await freshCopies(project, names, options.fresh && !options.dryRun);
  const texts = new ProjectTexts(project, knownParts(ledger));
  const sdks: SdkOutcome[] = [];
  const pinTexts = new Map<string, string>();
  const comparisons: (() => Promise<readonly ContractImpact[]>)[] = [];
  const halts: Halt[] = [];
  let reader: ContractReader | undefined;
  const bringUpToDate = async (name: string): Promise<SdkOutcome> => {
    const covers = project.configuration.sdks[name]?.covers ?? [];
    if (covers.every((contract) => !copies.lacking.has(contract) && texts.has(contract))) {
      texts.hashAhead(covers);
      const inputs = () => inputsHash(project, name, { texts, partial: options.partial });
      const unchanged = await unchangedOutcome(project, name, { inputs, ledger, texts });
      // With --strict, the number of skipped parts is needed, which only reading shows.
      if (unchanged && !(options.strict && ledger.sdks[name]?.setAside !== undefined)) {
        project.trace(() => `knew the SDK ${name} as up to date by its hashes`);
        return unchanged;
      }
    }
    await texts.readHosts(covers);
    const heavy = await import("./generateSdk.js");
    reader ??= heavy.newReader(texts);
    await heavy.fetchParts(project, name, { reader, lacking: copies.lacking });
    const result = await heavy.generateSdk(project, name, {
      reader,
      pinTexts,
      comparing: options.comparing ?? "before",
    });
    if (result.compare) comparisons.push(result.compare);
    // Reading found the other documents, whose content is an input too.
    const made: Made = {
      ...result,
      inputs: await inputsHash(project, name, { texts, partial: options.partial }),
      parts: partsOf(project, name, texts),
    };
    const outcome = settle(project, name, { made, ledger, options });
    ledger = outcome.ledger;
    return outcome.sdk;
  };
  for (const name of names) {
    // An error in one SDK does not stop the others.
    const outcome = await haltOrAsync(() => bringUpToDate(name));
    if (outcome instanceof Halt) halts.push(outcome);
    sdks.push(outcome instanceof Halt ? heldBack(project, name, outcome) : outcome);
  }
  const isForEditors = project.configuration.editors === true || ledger.editors !== undefined;
  const editors = isForEditors
    ? await bringEditorsFile(project, texts, { ledger, generateOptions: options })
    : undefined;
  const held = sdks.some((sdk) => sdk.state === "held back") || editors?.state === "held back";
  const isLacking =
    options.strict && sdks.some((sdk) => sdk.contracts.some((contract) => contract.setAside.length > 0));
  const found = held || isLacking ? exitCodes.findings : exitCodes.done;
  const haltTexts = new Map(halts.flatMap((halt) => [...halt.texts]));
  return {
    sdks,
    ...(editors ? { editors: editors.state } : {}),
    problems: [...project.problems, ...copies.problems, ...(editors?.problems ?? [])],
    completedEarlier,
    texts: new ShownTexts(
      (document) => texts.find(document) ?? haltTexts.get(document) ?? sourceText(project, document),
    ),
    pinTexts: new ShownTexts((document) => pinTexts.get(document)),
    exitCode: gravest([found, ...halts.map(({ exitCode }) => exitCode)]),
    ...(options.comparing === "after" ? { compare: () => allOf(comparisons) } : {}),
  };
}

/** Updates the file for editors, or removes it if it is no longer wanted. */
async function bringEditorsFile(
  project: OpenedProject,
  texts: ProjectTexts,
  {
    ledger,
    generateOptions: { dryRun, force },
  }: { readonly ledger: Ledger; readonly generateOptions: GenerateOptions },
): Promise<{ readonly state: NonNullable<GenerateOutcome["editors"]>; readonly problems: readonly Problem[] }> {
  const { editorsFile } = await import("./editorsFile.js");
  const { state, text, problems } = editorsFile(project, texts, { ledger, force });
  if (state === "unchanged") return { state, problems };
  if (state === "in the way") return { state: "held back", problems };
  if (dryRun) return { state: "would be written", problems };
  const { editors: _, ...others } = ledger;
  const newLedger: Ledger = text === undefined ? others : { ...others, editors: hashOf(text) };
  const write = new Map([[displayPath(project, ledgerPath(project)), ledgerText(newLedger)]]);
  if (text !== undefined) write.set(editorsPath, text);
  guardWrites(editorsPath, () => {
    performWriting(project, { write, remove: text === undefined ? [editorsPath] : [] });
  });
  return { state: text === undefined ? "removed" : "written", problems };
}

/** An SDK that cannot be generated. */
function heldBack(project: OpenedProject, name: string, { problems }: Halt): SdkOutcome {
  return {
    name,
    into: project.configuration.sdks[name]?.into ?? "",
    state: "held back",
    files: { added: 0, changed: 0, unchanged: 0, removed: 0 },
    contracts: [],
    impacts: [],
    problems,
  };
}

async function allOf(comparisons: readonly (() => Promise<readonly ContractImpact[]>)[]): Promise<ContractImpact[]> {
  const found: ContractImpact[] = [];
  for (const compare of comparisons) found.push(...(await compare()));
  return found;
}

/** Returns the names of the SDKs to generate. @throws Halt for a name that is not in the configuration */
export function chosenSdks(project: OpenedProject, wanted: readonly string[]): string[] {
  const known = Object.keys(project.configuration.sdks).sort();
  for (const name of wanted) {
    if (known.includes(name)) continue;
    const hint = didYouMean(name, known) ?? `Configured: ${known.join(", ")}.`;
    throw new Halt([problem("sdk.unknown", `There is no SDK named \`${name}\`.`, { hint })], exitCodes.usage);
  }
  return wanted.length > 0 ? [...new Set(wanted)] : known;
}

/**
 * Returns the outcome of an SDK whose inputs and outputs match the list of generated files; undefined if it must be
 * generated.
 *
 * @param inputs returns the hash of the SDK's inputs
 */
export async function unchangedOutcome(
  project: OpenedProject,
  name: string,
  {
    inputs,
    ledger,
    texts,
  }: { readonly inputs: () => Promise<string>; readonly ledger: Ledger; readonly texts: ProjectTexts },
): Promise<SdkOutcome | undefined> {
  const entry = ledger.sdks[name];
  if (!entry) return undefined;
  const folder = outputFolder(project, name, project.configuration.sdks[name]?.into ?? "");
  // The files come first: meanwhile, another thread can hash a large contract.
  const state = outputState(folderHashes(folder, project.session.files), entry);
  if (entry.inputs !== (await inputs())) return undefined;
  const pinned = (project.configuration.sdks[name]?.covers ?? []).every((contract) =>
    pinExists(project, name, contract),
  );
  if (state.edited.length > 0 || state.missing.length > 0 || !pinned) return undefined;
  const problems = (project.configuration.sdks[name]?.covers ?? []).flatMap(
    (contract) => texts.queryDocuments(contract).problems,
  );
  return {
    name,
    into: displayPath(project, folder),
    state: "unchanged",
    files: { added: 0, changed: 0, unchanged: state.intact.length, removed: 0 },
    contracts: [],
    impacts: [],
    problems,
  };
}

function pinExists(project: OpenedProject, sdk: string, contract: string): boolean {
  const base = join(project.root, ".rhema", "pins", sdk, contract);
  return [`${base}.openapi.json`, `${base}.graphql`].some((path) => existsSync(path));
}

interface Settled {
  readonly ledger: Ledger;
  readonly sdk: SdkOutcome;
}

/** An SDK in memory, with its inputs. */
interface Made {
  readonly built: BuiltSdk;
  readonly outcome: SdkOutcome;
  readonly inputs: string;
  readonly parts: Readonly<Record<string, readonly string[]>>;
}

/** The module for copies is loaded only if a contract is remote. */
async function freshCopies(project: OpenedProject, sdks: readonly string[], fresh: boolean): Promise<Obtained> {
  const covered = new Set(sdks.flatMap((sdk) => project.configuration.sdks[sdk]?.covers ?? []));
  const isRemote = (contract: string): boolean => {
    const settings = project.configuration.contracts[contract];
    return settings !== undefined && (sourceList(settings).some(isUrl) || sourceList(settings).length === 0);
  };
  const remote = [...covered].filter(isRemote).sort();
  if (remote.length === 0) return { problems: [], lacking: new Map() };
  return (await import("../sources/obtainCopies.js")).obtainCopies(project, remote, fresh);
}

function partsOf(project: OpenedProject, sdk: string, texts: ProjectTexts): Record<string, string[]> {
  const covers = [...(project.configuration.sdks[sdk]?.covers ?? [])].sort();
  return Object.fromEntries(
    covers.map((name) => [name, texts.partNames(name)] as const).filter(([, parts]) => parts.length > 0),
  );
}

/** Decides whether an SDK may be written, and writes it together with its pin and the list of generated files. */
function settle(
  project: OpenedProject,
  name: string,
  { made, ledger, options }: { readonly made: Made; readonly ledger: Ledger; readonly options: GenerateOptions },
): Settled {
  const { built, outcome } = made;
  const folder = outputFolder(project, name, project.configuration.sdks[name]?.into ?? "");
  const entry = ledger.sdks[name];
  const previous = entry?.into === displayPath(project, folder) ? entry : undefined;
  const onDisk = folderHashes(folder, project.session.files);
  const refusals = [
    ...(options.partial ? [] : built.queryErrors),
    ...refusalsOf({ project, folder, onDisk }, previous, { built, force: options.force }),
    ...gateRefusals(outcome, options.gate),
  ];
  const files = countFiles(onDisk, built, previous);
  if (refusals.length > 0) {
    const untouched = { ...files, added: 0, changed: 0, removed: 0 };
    const problems = [...outcome.problems, ...refusals];
    return { ledger, sdk: { ...outcome, state: "held back", files: untouched, problems } };
  }
  const sdk: SdkOutcome = {
    ...outcome,
    files,
    state: options.dryRun ? "would be written" : "written",
    problems: [...outcome.problems, ...(options.partial ? built.queryErrors : [])],
  };
  if (options.dryRun) return { ledger, sdk };
  const newEntry = entryOf(made, displayPath(project, folder));
  const configuration = hashOf(project.configText);
  const newLedger: Ledger = { ...ledger, configuration, sdks: { ...ledger.sdks, [name]: newEntry } };
  const writing = toWrite(project, { built, entry: newEntry, onDisk });
  writing.texts.set(displayPath(project, ledgerPath(project)), ledgerText(newLedger));
  const orphans = Object.keys(entry?.files ?? {}).filter(
    (path) => entry?.into !== newEntry.into || !built.files.has(path),
  );
  guardWrites(newEntry.into, () => {
    const remove = orphans.map((path) => `${entry?.into ?? ""}/${path}`);
    performWriting(project, { write: writing.texts, remove });
  });
  const written = String(writing.texts.size);
  project.trace(() => `wrote ${written} files and removed ${String(orphans.length)} for the SDK ${name}`);
  for (const [path, hash] of writing.hashes)
    project.session.files.remember(join(project.root, path), writing.texts.get(path) ?? "", hash);
  return { ledger: newLedger, sdk };
}

/** @param into the folder of the SDK, as a path in the project */
function entryOf({ built, inputs, parts }: Made, into: string): LedgerEntry {
  const setAside = built.contracts.reduce((count, contract) => count + contract.setAside.length, 0);
  return {
    into,
    inputs,
    files: Object.fromEntries(built.hashes),
    ...(Object.keys(parts).length > 0 ? { parts } : {}),
    ...(setAside > 0 ? { setAside } : {}),
  };
}

/** The files of an SDK and its pin that differ on disk, by path, with the known hashes. */
function toWrite(
  project: OpenedProject,
  {
    built,
    entry,
    onDisk,
  }: { readonly built: BuiltSdk; readonly entry: LedgerEntry; readonly onDisk: ReturnType<typeof folderHashes> },
): { readonly texts: Map<string, string>; readonly hashes: ReadonlyMap<string, string> } {
  const texts = new Map<string, string>();
  const hashes = new Map<string, string>();
  const want = (path: string, text: string, hash?: string): void => {
    texts.set(path, text);
    if (hash !== undefined) hashes.set(path, hash);
  };
  for (const [path, text] of built.files) {
    const hash = entry.files[path] ?? "";
    if (onDisk(path) !== hash) want(`${entry.into}/${path}`, text, hash);
  }
  for (const [path, text] of built.pins) {
    const found = project.session.files.of(join(project.root, path));
    // Hashing a large pin for the first time would be useless.
    const hash = found === undefined ? undefined : hashOf(normalized(text));
    if (found === undefined || found !== hash) want(path, text, hash);
  }
  return { texts, hashes };
}

/** The changes since the pin that fail the gate. The report lists them. */
function gateRefusals({ impacts }: SdkOutcome, gate: Gate): Problem[] {
  return impacts
    .filter((impact) => holdsAny(impact, gate))
    .map((impact) => {
      const held = impact.changes.filter((change) => isHeld(change, gate)).length;
      const count = `${String(held)} of ${String(impact.changes.length)} change${impact.changes.length === 1 ? "" : "s"}`;
      const what =
        held === 0
          ? `\`${impact.contract}\` does not support some of your queries`
          : `${count} to \`${impact.contract}\` ${held === 1 ? "is" : "are"} ${gate.level === "risky" ? "risky or breaking" : "breaking"} for what you use`;
      return problem("gate.held", `${what}. The gate is \`${gate.level}\`.`, {
        hint: "Run `rhema impact`. Use `rhema generate --gate off` if you want the change.",
      });
    });
}

function countFiles(onDisk: FolderHashes, built: BuiltSdk, previous: LedgerEntry | undefined): SdkOutcome["files"] {
  let added = 0;
  let changed = 0;
  let unchanged = 0;
  for (const [path, hash] of built.hashes) {
    const found = onDisk(path);
    if (found === undefined) added++;
    else if (found === hash) unchanged++;
    else changed++;
  }
  return {
    added,
    changed,
    unchanged,
    removed: Object.keys(previous?.files ?? {}).filter((path) => !built.files.has(path)).length,
  };
}

/** The reasons not to write: manual edits, and files that Rhema did not write. */
function refusalsOf(
  { project, folder, onDisk }: { project: OpenedProject; folder: string; onDisk: FolderHashes },
  previous: LedgerEntry | undefined,
  { built, force }: { readonly built: BuiltSdk; readonly force: boolean },
): Problem[] {
  const into = displayPath(project, folder);
  const refusals: Problem[] = [];
  const { edited } = outputState(onDisk, previous);
  const reallyEdited = edited.filter((path) => onDisk(path) !== built.hashes.get(path));
  if (reallyEdited.length > 0 && !force) {
    const list = reallyEdited.map((path) => `\`${into}/${path}\``).join(", ");
    refusals.push(
      problem("output.edited", `${list} ${reallyEdited.length === 1 ? "was" : "were"} edited.`, {
        why: "Rhema would overwrite the edit.",
        hint: "Move it out of the SDK, or use --force to replace the file.",
      }),
    );
  }
  const foreign = foreignFiles(folder, previous);
  const inTheWay = foreign.filter(
    (path) => path === "." || (built.files.has(path) && onDisk(path) !== built.hashes.get(path)),
  );
  if (inTheWay.length > 0) {
    const list = inTheWay
      .slice(0, 5)
      .map((path) => `\`${path === "." ? into : `${into}/${path}`}\``)
      .join(", ");
    refusals.push(
      problem(
        "output.foreign",
        `${list} ${inTheWay.length === 1 ? "is" : "are"} in the output folder, and Rhema did not write ${inTheWay.length === 1 ? "it" : "them"}.`,
        {
          why: "Rhema does not replace your files, even with --force.",
          hint: "Move it away, or choose another folder for `into`.",
        },
      ),
    );
  } else if (foreign.length > 0 && !previous && !force && foreign.some((path) => !built.files.has(path))) {
    refusals.push(
      problem(
        "output.foreign",
        `\`${into}\` is not empty, and Rhema did not write what is in it (\`${foreign[0] ?? ""}\`).`,
        { hint: `Choose an empty folder such as \`${into}/sdk\`, or use --force to write next to your files.` },
      ),
    );
  }
  return refusals;
}

/** Turns an error of the file system into a message. */
function guardWrites<T>(into: string, write: () => T): T {
  try {
    return write();
  } catch (error) {
    const cause = error instanceof TakenBack ? error.cause : error;
    const code = errorCode(cause);
    if (
      code === undefined ||
      ![
        "EACCES",
        "EPERM",
        "EROFS",
        "ENOSPC",
        "ENOTDIR",
        "EISDIR",
        "EEXIST",
        "EBUSY",
        "ENAMETOOLONG",
        "EINVAL",
      ].includes(code)
    )
      throw error;
    throw new Halt(
      [
        problem("output.unwritable", `\`${into}\` cannot be written (${code}).`, {
          why: "All files are unchanged.",
          hint: "Check the folder and its permissions.",
        }),
      ],
      exitCodes.usage,
    );
  }
}
