import { resolve } from "node:path";
import type { ContractImpact } from "../core/change/judgedChange.js";
import type { SourceText } from "../core/problem/place.js";
import { problem } from "../core/problem/problem.js";
import { ContractReader } from "./buildSdk.js";
import { compareSides, readSide, type Side } from "./compareWithPin.js";
import { exitCodes, Halt } from "./halt.js";
import { chosenContracts } from "./chosenContracts.js";
import { readPin } from "./pins.js";
import { displayPath, type Project } from "./project.js";
import { ProjectTexts } from "./sdkInputs.js";
import { sourceText } from "./sources.js";
import { readText } from "./textFile.js";

export interface ImpactOptions {
  /** Names of contracts; all when empty. */
  readonly contracts: readonly string[];
  /** A file instead of the pin. */
  readonly before?: string | undefined;
  /** A file instead of the contract as it is now. */
  readonly after?: string | undefined;
}

export interface ImpactOutcome {
  readonly impacts: readonly ContractImpact[];
  /** Contracts that have no pin yet. */
  readonly unpinned: readonly string[];
  readonly beforeTextOf: (document: string) => string | undefined;
  readonly afterTextOf: (document: string) => string | undefined;
}

/** Compares contracts and says what the differences do to the project. @throws Halt on wrong names or unreadable contracts */
export async function impact(project: Project, cwd: string, options: ImpactOptions): Promise<ImpactOutcome> {
  const texts = new ProjectTexts(project);
  const reader = new ContractReader(texts);
  const others = new Map<string, string>();
  const names = comparedContracts(project, options);
  await texts.readHosts(names);
  const impacts: ContractImpact[] = [];
  const unpinned: string[] = [];
  const load = (path: string): SourceText[] => {
    const found = fileText(path, cwd, project);
    others.set(found.document, found.text);
    return [found];
  };
  for (const name of names) {
    const before = options.before === undefined ? pinOf(project, name, others) : load(options.before);
    if (!before) {
      unpinned.push(name);
      continue;
    }
    const now = options.after === undefined ? reader.read(name) : undefined;
    const after: Side = now
      ? { reading: now, label: now.contract.version === "" ? "now" : now.contract.version }
      : readSide(name, load(options.after ?? ""), options.after ?? "");
    const sides = [readSide(name, before, options.before ?? "pin"), after] as const;
    impacts.push(compareSides(name, ...sameProtocol(name, sides), texts));
  }
  const textOf = (document: string): string | undefined =>
    others.get(document) ?? texts.find(document) ?? sourceText(project, document);
  return { impacts, unpinned, beforeTextOf: textOf, afterTextOf: textOf };
}

/** Compares two files without a project: what differs, and nothing about its use. */
export function impactOfFiles(cwd: string, before: string, after: string): ImpactOutcome {
  const left = fileText(before, cwd, undefined);
  const right = fileText(after, cwd, undefined);
  const name = (after.split(/[\\/]/).pop() ?? after).replace(/\.[^.]*$/, "");
  const sides = [readSide(name, [left], before), readSide(name, [right], after)] as const;
  const impacts = [compareSides(name, ...sameProtocol(name, sides), undefined)];
  return {
    impacts,
    unpinned: [],
    beforeTextOf: (document) => (document === left.document ? left.text : undefined),
    afterTextOf: (document) => (document === right.document ? right.text : undefined),
  };
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
        `\`${name}\` was a ${words[from]} contract and is a ${words[to]} one; the two cannot be compared.`,
      ),
    ],
    exitCodes.usage,
  );
}

function comparedContracts(project: Project, { contracts, before, after }: ImpactOptions): string[] {
  const chosen = chosenContracts(project, contracts);
  if (chosen.length > 1 && (before !== undefined || after !== undefined)) {
    throw new Halt(
      [
        problem("sdk.unknown", "--before and --after name files of one contract, and several are configured.", {
          hint: `Say which: ${chosen.join(", ")}.`,
        }),
      ],
      exitCodes.usage,
    );
  }
  return chosen;
}

function pinOf(project: Project, name: string, others: Map<string, string>): SourceText[] | undefined {
  const sdks = Object.entries(project.configuration.sdks).filter(([, { covers }]) => covers.includes(name));
  for (const [sdk] of sdks.sort(([a], [b]) => (a < b ? -1 : 1))) {
    const pin = readPin(project, sdk, name);
    if (!pin) continue;
    others.set(pin.document, pin.text);
    return [pin];
  }
  return undefined;
}

function fileText(path: string, cwd: string, project: Project | undefined): SourceText {
  const absolute = resolve(cwd, path);
  const document = project ? displayPath(project, absolute) : path;
  try {
    return { document, text: readText(absolute) };
  } catch {
    throw new Halt(
      [problem("contract.missing", `There is no contract file \`${path}\`.`, { hint: "Check the path." })],
      exitCodes.unreadable,
    );
  }
}
