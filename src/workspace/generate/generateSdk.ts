import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { haltOrAsync, mergedHalt } from "../project/allOrHalt.js";
import { Halt } from "../project/halt.js";
import { buildSdk, type BuiltContract, type BuiltSdk } from "./buildSdk.js";
import { ContractReader } from "../sources/contractReader.js";
import type { ContractOutcome, SdkOutcome } from "./generateOutcome.js";
import type { SourceText } from "../../core/problem/place.js";
import { pinPaths, readPin } from "./pins.js";
import { displayPath, outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import type { ProjectTexts } from "./sdkInputs.js";
import { vanishedNames } from "./vanishedNames.js";

/**
 * Runs the part of generating that needs the core, which is loaded only if there is something to do.
 *
 * @param pinTexts receives the texts of the current pins
 * @returns the SDK, and `compare` if the comparison with the pins is left for later
 */
export async function generateSdk(
  project: OpenedProject,
  name: string,
  {
    reader,
    pinTexts,
    comparing,
  }: {
    readonly reader: ContractReader;
    readonly pinTexts: Map<string, string>;
    readonly comparing: "before" | "after";
  },
): Promise<{ built: BuiltSdk; outcome: SdkOutcome; compare?: () => Promise<ContractImpact[]> }> {
  const built = await buildSdk(project, name, reader);
  const pins = built.contracts.flatMap(({ contract }) => readPin(project, name, contract.name) ?? []);
  for (const { document, text } of pins) pinTexts.set(document, text);
  const compare = async (isPinned: boolean): Promise<ContractImpact[]> => {
    const impacts: ContractImpact[] = [];
    for (const { contract } of built.contracts) {
      const paths = pinPaths(project, name, contract.name).contracts;
      const pin = pins.find(({ document }) => paths.includes(document));
      if (pin) impacts.push(...(await impactOf(contract.name, pin, { isPinned, reader })));
    }
    return impacts;
  };
  const impacts = comparing === "before" ? await compare(true) : [];
  const into = displayPath(project, outputFolder(project, name, project.configuration.sdks[name]?.into ?? ""));
  const outcome: SdkOutcome = {
    name,
    into,
    state: "written",
    files: { added: 0, changed: 0, unchanged: 0, removed: 0 },
    contracts: built.contracts.map((contract) => contractOutcome(contract, reader.texts)),
    impacts,
    problems: [...built.problems, ...(await vanishedNames(project, name, built))],
  };
  return { built, outcome, ...(comparing === "after" ? { compare: () => compare(false) } : {}) };
}

/**
 * Reads the contracts of an SDK, and fetches the remote documents that they refer to, if the configuration allows it.
 *
 * @param lacking contracts that are not available
 * @throws Halt with the problems of every contract that cannot be read
 */
export async function fetchParts(
  project: OpenedProject,
  sdk: string,
  { reader, lacking }: { readonly reader: ContractReader; readonly lacking: ReadonlyMap<string, Halt> },
): Promise<void> {
  const halts: Halt[] = [];
  for (const contract of project.configuration.sdks[sdk]?.covers ?? []) {
    const read = lacking.get(contract) ?? (await haltOrAsync(() => fetchPartsOf(project, contract, reader)));
    if (read instanceof Halt) halts.push(read);
  }
  if (halts.length > 0) throw mergedHalt(halts);
}

async function fetchPartsOf(project: OpenedProject, contract: string, reader: ContractReader): Promise<void> {
  const tried = new Set<string>();
  for (;;) {
    reader.read(contract);
    const wanted = reader.texts.unfetched(contract).filter((name) => !tried.has(name));
    if (wanted.length === 0) return;
    const { obtain } = await import("../sources/obtainCopies.js");
    for (const name of wanted) {
      tried.add(name);
      await obtain(project, contract, name);
    }
    reader.forget(contract);
  }
}

/** Returns a reader that has read nothing yet. */
export function newReader(texts: ProjectTexts): ContractReader {
  return new ContractReader(texts);
}

function contractOutcome({ contract, plan, queries, setAside }: BuiltContract, texts: ProjectTexts): ContractOutcome {
  return {
    name: contract.name,
    protocol: contract.protocol,
    version: contract.version,
    from: texts.contract(contract.name).map(({ document }) => document),
    calls: plan.calls.length,
    types: plan.types.size,
    leftOut: queries?.leftOut.length ?? 0,
    untyped: plan.untyped,
    setAside,
  };
}

/**
 * The changes since a pin; nothing if it has the other protocol.
 *
 * @param isPinned whether the SDK on disk is still the one of the pin
 */
async function impactOf(
  name: string,
  pin: SourceText,
  { isPinned, reader }: { readonly isPinned: boolean; readonly reader: ContractReader },
): Promise<ContractImpact[]> {
  // Loaded only if there is a pin to compare with.
  const { compareSides, readSide } = await import("../impact/compareWithPin.js");
  const after = reader.side(name);
  const before = readSide(name, [pin], { label: "pin", isPinned });
  if (before.contract.protocol !== after.contract.protocol) return [];
  const impact = await compareSides(name, [before, after], {
    session: reader.texts.project.session,
    texts: reader.texts,
    searching: "notable",
  });
  return impact.changes.length > 0 ? [impact] : [];
}
