import { counted } from "../../core/report/paint.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { chosenContracts } from "../../workspace/chosenContracts.js";
import { openProject } from "../../workspace/project.js";
import { pull, type PulledContract } from "../../workspace/pull.js";
import { problemJson } from "../problemJson.js";
import type { GlobalOptions, Terminal } from "../terminal.js";

const states = {
  new: "saved",
  changed: "changed, saved",
  same: "the same as before",
  failed: "not refreshed; the copy stays",
  local: "comes from files, nothing to pull",
} as const;

/** `rhema pull [contract…]`: refresh the copies of remote contracts. */
export async function pullCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  contracts: readonly string[],
): Promise<number> {
  const project = await openProject(process.cwd(), globals.config);
  const outcome = await pull(project, chosenContracts(project, contracts));
  const textOf = (document: string): string | undefined =>
    document === project.configName ? project.configText : undefined;
  terminal.note(
    [...project.problems, ...outcome.problems].flatMap((each) => [...renderProblem(each, textOf, terminal.paint), ""]),
  );
  terminal.result([headline(outcome.contracts, terminal), ...outcome.contracts.map((each) => row(each, terminal))]);
  terminal.document({
    contracts: outcome.contracts,
    problems: outcome.problems.map((each) => problemJson(each, textOf)),
    exitCode: outcome.exitCode,
  });
  return outcome.exitCode;
}

function headline(contracts: readonly PulledContract[], { paint }: Terminal): string {
  const failed = contracts.filter(({ state }) => state === "failed").length;
  if (failed > 0) return paint.bad(`pull: ${counted(failed, "contract")} not refreshed, see above`);
  const fresh = contracts.filter(({ state }) => state === "new" || state === "changed").length;
  if (fresh === 0) return paint.good("pull: nothing changed");
  return paint.good(`pull: ${counted(fresh, "contract")} refreshed; \`rhema generate\` shows what it changes`);
}

function row({ name, state, copies }: PulledContract, { paint }: Terminal): string {
  return `  ${paint.accent(name)}  ${states[state]}${copies.length > 0 ? paint.quiet(`  ${copies.join(", ")}`) : ""}`;
}
