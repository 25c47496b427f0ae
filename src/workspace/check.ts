import { ShownTexts } from "../core/problem/shownTexts.js";
import { join } from "node:path";
import { usualGate, type Gate } from "../core/change/judge/gate.js";
import { problem, type Problem } from "../core/problem/problem.js";
import { buildSdk } from "./generate/buildSdk.js";
import { ContractReader } from "./sources/contractReader.js";
import { chosenSdks, unchangedOutcome } from "./generate/generate.js";
import { allOrHalt, gravest, haltOr, haltOrAsync } from "./project/allOrHalt.js";
import { editorsPath } from "./generate/editorsPath.js";
import { exitCodes, Halt, type ExitCode } from "./project/halt.js";
import { knownParts, readLedger } from "./generate/ledger.js";
import { folderHashes, outputState } from "./generate/outputState.js";
import { displayPath, outputFolder } from "./project/project.js";
import type { OpenedProject } from "./project/openProject.js";
import { outlivedAcceptances } from "./impact/acceptances.js";
import { guarded } from "./impact/guard.js";
import { inputsHash, ProjectTexts } from "./generate/sdkInputs.js";
import { sourceText } from "./sources/sources.js";
import { hashOf, normalized } from "./files/textFile.js";
import { hasUnfinishedWriting } from "./files/writing.js";

export interface CheckedSdk {
  readonly name: string;
  readonly into: string;
  readonly ok: boolean;
  readonly files: number;
  readonly problems: readonly Problem[];
}

export interface CheckOutcome {
  readonly sdks: readonly CheckedSdk[];
  readonly problems: readonly Problem[];
  readonly texts: ShownTexts;
  readonly exitCode: ExitCode;
}

/**
 * Checks that every SDK is up to date and every query document is valid. Writes nothing.
 *
 * @param wanted the names of SDKs; all if empty
 * @param gate the changes that fail
 */
export async function check(
  project: OpenedProject,
  wanted: readonly string[],
  gate: Gate = usualGate,
): Promise<CheckOutcome> {
  const texts = new ProjectTexts(project, knownParts(readLedger(project)));
  const reader = new ContractReader(texts);
  const problems = [...project.problems, ...outlivedAcceptances(project)];
  if (hasUnfinishedWriting(project)) {
    problems.push(
      problem("output.stale", "An earlier run was interrupted.", {
        hint: "Run `rhema generate` to complete it.",
      }),
    );
  }
  const names = chosenSdks(project, wanted);
  problems.push(...(await editorsProblems(project, texts)));
  await texts.readHosts(new Set(names.flatMap((name) => project.configuration.sdks[name]?.covers ?? [])));
  const halts: Halt[] = [];
  const sdks: CheckedSdk[] = [];
  for (const name of names) {
    const checked = await haltOrAsync(() => checkSdk(project, name, { texts, reader }));
    if (checked instanceof Halt) halts.push(checked);
    const into = project.configuration.sdks[name]?.into ?? "";
    sdks.push(checked instanceof Halt ? { name, into, ok: false, files: 0, problems: checked.problems } : checked);
  }
  const covered = new Set(
    names
      .flatMap((name) => project.configuration.sdks[name]?.covers ?? [])
      .filter((contract) => !(haltOr(() => reader.read(contract)) instanceof Halt)),
  );
  const older = new Map<string, string>();
  problems.push(...(await guarded(project, [...covered].sort(), { reader, gate, texts: older })));
  const haltTexts = new Map(halts.flatMap((halt) => [...halt.texts]));
  const failed = sdks.some((sdk) => !sdk.ok) || problems.some(({ level }) => level === "error");
  return {
    sdks,
    problems,
    texts: new ShownTexts(
      (document) =>
        older.get(document) ?? texts.find(document) ?? haltTexts.get(document) ?? sourceText(project, document),
    ),
    exitCode: gravest([failed ? exitCodes.findings : exitCodes.done, ...halts.map(({ exitCode }) => exitCode)]),
  };
}

async function editorsProblems(project: OpenedProject, texts: ProjectTexts): Promise<readonly Problem[]> {
  const ledger = readLedger(project);
  if (project.configuration.editors !== true && ledger.editors === undefined) return [];
  const { editorsFile } = await import("./generate/editorsFile.js");
  const { state, problems } = editorsFile(project, texts, { ledger, force: false });
  if (state === "unchanged" || state === "in the way") return problems;
  const hint = "Run `rhema generate`, and commit the result.";
  return [problem("output.stale", `\`${editorsPath}\` is out of date with \`${project.configName}\`.`, { hint })];
}

async function checkSdk(
  project: OpenedProject,
  name: string,
  { texts, reader }: { readonly texts: ProjectTexts; readonly reader: ContractReader },
): Promise<CheckedSdk> {
  const ledger = readLedger(project);
  const covers = project.configuration.sdks[name]?.covers ?? [];
  if (!covers.every((contract) => texts.has(contract))) allOrHalt(covers, (contract) => reader.read(contract));
  const folder = outputFolder(project, name, project.configuration.sdks[name]?.into ?? "");
  const into = displayPath(project, folder);
  const entry = ledger.sdks[name];
  texts.hashAhead(covers);
  const inputs = () => inputsHash(project, name, { texts, partial: false });
  const full = await unchangedOutcome(project, name, { inputs, ledger, texts });
  if (full) return { name, into, ok: true, files: full.files.unchanged, problems: full.problems };
  allOrHalt(covers, (contract) => reader.read(contract));
  const built = await buildSdk(project, name, reader);
  const problems = [...built.problems, ...built.queryErrors];
  const { edited } = outputState(folderHashes(folder, project.session.files), entry);
  if (edited.length > 0) {
    problems.push(
      problem(
        "output.edited",
        `${edited.map((path) => `\`${into}/${path}\``).join(", ")} ${edited.length === 1 ? "was" : "were"} edited.`,
        { hint: "Move the edit out of the SDK, then run `rhema generate --force`." },
      ),
    );
  }
  const differs = (path: string, text: string): boolean => project.session.files.of(path) !== hashOf(normalized(text));
  const stale = [...built.files]
    .filter(([path, text]) => !edited.includes(path) && differs(join(folder, path), text))
    .map(([path]) => `${into}/${path}`);
  const orphans = Object.keys(entry?.files ?? {})
    .filter((path) => !built.files.has(path))
    .map((path) => `${into}/${path}`);
  const pins = [...built.pins].filter(([path, text]) => differs(join(project.root, path), text)).map(([path]) => path);
  // Without the queries that have errors, all their files would be stale. The contract is still reported.
  const all =
    built.queryErrors.length > 0
      ? pins.filter((path) => !path.endsWith(".operations.graphql"))
      : [...stale, ...orphans, ...pins];
  if (all.length > 0)
    problems.push(
      problem("output.stale", staleMessage(name, all), { hint: "Run `rhema generate`, and commit the result." }),
    );
  return { name, into, ok: !problems.some(({ level }) => level === "error"), files: built.files.size, problems };
}

const staleShown = 4;

function staleMessage(name: string, paths: readonly string[]): string {
  const shown = paths
    .slice(0, staleShown)
    .map((path) => `\`${path}\``)
    .join(", ");
  const more = paths.length > staleShown ? ` and ${String(paths.length - staleShown)} more` : "";
  return `The SDK \`${name}\` is out of date: ${shown}${more}.`;
}
