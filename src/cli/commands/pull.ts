import { counted } from "../../core/report/paint.js";
import { renderImpact } from "../../core/report/renderImpact.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { chosenContracts } from "../../workspace/configuration/chosenContracts.js";
import { openProject } from "../../workspace/project/openProject.js";
import { pull, type PulledContract } from "../../workspace/pull.js";
import { problemJson } from "../output/problemJson.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

const states = {
  new: "saved",
  changed: "changed, saved",
  same: "the same as before",
  failed: "not updated; the copy stays",
  local: "comes from files; nothing to pull",
} as const;

const checkedStates = {
  ...states,
  new: "was never pulled",
  changed: "the origin changed; the copy stays",
  failed: "could not be checked",
} as const;

export interface PullCommandOptions {
  readonly contracts: readonly string[];
  readonly check: boolean;
}

/**
 * `rhema pull [contract…]`: updates the copies of remote contracts, and shows what that changes.
 *
 * @returns the exit code
 */
export async function pullCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  { contracts, check }: PullCommandOptions,
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  const { paint } = terminal;
  const outcome = await pull(project, {
    contracts: chosenContracts(project, contracts),
    checkOnly: check,
    onImpact: (impact, texts) => {
      terminal.result([...renderImpact([impact], { before: texts, after: texts }, { paint, all: false }), ""]);
    },
  });
  const { texts } = outcome;
  terminal.note(
    [...project.problems, ...outcome.problems]
      .filter(terminal.isTold)
      .flatMap((each) => [...renderProblem(each, texts, paint), ""]),
  );
  terminal.result([
    headline(outcome.contracts, check, terminal),
    ...outcome.contracts.map((each) => row(each, check, terminal)),
  ]);
  terminal.document({
    contracts: outcome.contracts,
    changes: outcome.impacts.flatMap(({ contract, changes }) =>
      changes.map(({ code, message, verdict, use }) => ({ contract, code, message, verdict, use })),
    ),
    problems: outcome.problems.map((each) => problemJson(each, texts)),
    exitCode: outcome.exitCode,
  });
  return outcome.exitCode;
}

function headline(contracts: readonly PulledContract[], isCheck: boolean, { paint }: Terminal): string {
  const failed = contracts.filter(({ state }) => state === "failed").length;
  if (failed > 0) return paint.bad(`pull: ${counted(failed, "contract")} not updated, see below`);
  const fresh = contracts.filter(({ state }) => state === "new" || state === "changed").length;
  if (fresh === 0) return paint.good("pull: nothing changed");
  if (isCheck) return paint.warn(`pull: ${counted(fresh, "contract")} changed; \`rhema pull\` updates the copy`);
  return paint.good(`pull: ${counted(fresh, "contract")} updated; next: rhema generate`);
}

function row({ name, state, copies }: PulledContract, isCheck: boolean, { paint }: Terminal): string {
  const words = isCheck ? checkedStates[state] : states[state];
  return `  ${paint.accent(name)}  ${words}${copies.length > 0 ? paint.quiet(`  ${copies.join(", ")}`) : ""}`;
}
