import type { TypescriptSettings } from "../../../src/core/languages/typescript/settings.js";
import type { RestContract } from "../../../src/core/contract/model.js";
import { compilerComplaints, lintComplaints, type Complaint } from "../../support/compiler.js";
import { programOf, virtualFolder } from "./compile.js";
import { makeContract } from "./makeContract.js";
import { probeModule, type ProbeCount } from "./probes.js";
import { testedCore, type TestedCore } from "./testedCore.js";

export interface Checked extends ProbeCount {
  readonly contracts: number;
  readonly calls: number;
  readonly setAside: readonly string[];
  readonly occurred: ReadonlyMap<string, number>;
  /** The errors of compiler, probes and linter. */
  readonly failures: readonly string[];
}

export interface CheckOptions {
  /** The core to check; by default the normal one. */
  readonly core?: TestedCore;
  readonly runtime: ReadonlyMap<string, string>;
  readonly lint: boolean;
  /** Settings that change values, which are then not checked. */
  readonly settings?: Omit<TypescriptSettings, "imports">;
}

/**
 * Generates an SDK for the random contracts of some seeds, compiles it together with probes of its types, and lints it.
 */
export function checkContracts(seeds: readonly number[], options: CheckOptions): Checked {
  const { runtime, lint, settings, core = testedCore } = options;
  const count: ProbeCount = { taken: 0, refused: 0, unsampled: 0 };
  const occurred = new Map<string, number>();
  const setAside: string[] = [];
  const files = new Map<string, string>();
  const plans = seeds.map((seed) => {
    const made = makeContract(seed);
    for (const [feature, times] of made.occurred) occurred.set(feature, (occurred.get(feature) ?? 0) + times);
    const { contract, problems } = core.readContract(`c${String(seed)}`, [
      { document: "api.json", text: JSON.stringify(made.document) },
    ]);
    if (contract?.protocol !== "rest")
      throw new Error(`seed ${String(seed)}: ${problems.map((each) => each.message).join("; ")}`);
    setAside.push(...asideOf(seed, contract));
    const plan = core.planRest(contract, {});
    if (!settings) files.set(`probes${String(seed)}.ts`, probeModule(made, plan, count));
    return plan;
  });
  const sdk = core.printTypescriptSdk(
    { name: "app", contracts: plans },
    { runtime, scalars: new Map(), ...(settings ? { settings } : {}) },
  );
  if (settings) files.set("own.ts", ownModule);
  const code = new Map([...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]));
  for (const [path, text] of code) files.set(path, text);
  const program = programOf(files);
  const complaints = compilerComplaints(program, virtualFolder);
  // The runtime is the same for all, and linted with the rest of the code.
  const own = new Map([...code].filter(([path]) => !path.startsWith("sdk/wire/")));
  if (lint) complaints.push(...lintComplaints(program, virtualFolder, own));
  return {
    ...count,
    contracts: seeds.length,
    calls: plans.reduce((total, plan) => total + plan.calls.length, 0),
    setAside,
    occurred,
    failures: complaints.map((complaint) => described(complaint, files)),
  };
}

/** What an app could make from a format. */
const ownModule = `export class Own { constructor(readonly text: string) {} }
export const decodeOwn = (text: string): Own => new Own(text);
export const encodeOwn = (own: Own): string => own.text;
`;

function asideOf(seed: number, contract: RestContract): string[] {
  return contract.setAside.map(({ what, why }) => `seed ${String(seed)}: ${what}: ${why}`);
}

function described({ file, line, code, message }: Complaint, files: ReadonlyMap<string, string>): string {
  const lines = files.get(file)?.split("\n") ?? [];
  const shown = (message.startsWith("Unused") ? [lines[line - 1], lines[line]] : [lines[line - 2], lines[line - 1]])
    .map((each) => (each ?? "").slice(0, 240))
    .join("\n    ");
  return `${file}:${String(line)} ${code}: ${message.slice(0, 400)}\n    ${shown}`;
}
