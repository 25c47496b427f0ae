import { breaksProject } from "../../core/change/judgedChange.js";
import { renderImpact } from "../../core/report/renderImpact.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { exitCodes, Halt } from "../../workspace/halt.js";
import { impact, impactOfFiles, type ImpactOptions, type ImpactOutcome } from "../../workspace/impact.js";
import { openProject } from "../../workspace/project.js";
import { impactJson } from "../impactJson.js";
import type { GlobalOptions, Terminal } from "../terminal.js";

export interface ImpactCommandOptions extends ImpactOptions {
  /** Also list what touches nothing in use. */
  readonly all: boolean;
}

/** `rhema impact [contract…]`: what changed, what it breaks, where. Exits 1 when something in use breaks. */
export async function impactCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: ImpactCommandOptions,
): Promise<number> {
  const outcome = await findImpact(globals, options, terminal);
  const { paint } = terminal;
  const texts = { before: outcome.beforeTextOf, after: outcome.afterTextOf };
  for (const name of outcome.unpinned)
    terminal.note([`${name}: nothing to compare with yet; \`rhema generate\` pins the contract.`]);
  if (outcome.impacts.length > 0) terminal.result(renderImpact(outcome.impacts, texts, paint, options.all));
  const breaks = outcome.impacts.some((each) => each.brokenQueries.length > 0 || each.changes.some(breaksProject));
  const exitCode = breaks ? exitCodes.findings : exitCodes.done;
  terminal.document({
    exitCode,
    contracts: outcome.impacts.map((each) => impactJson(each, texts.before, texts.after)),
    unpinned: outcome.unpinned,
  });
  return exitCode;
}

async function findImpact(
  globals: GlobalOptions,
  options: ImpactCommandOptions,
  terminal: Terminal,
): Promise<ImpactOutcome> {
  const { before, after } = options;
  try {
    const project = await openProject(process.cwd(), globals.config);
    terminal.note(
      project.problems.flatMap((problem) => renderProblem(problem, () => project.configText, terminal.paint)),
    );
    return await impact(project, process.cwd(), options);
  } catch (error) {
    // Two files can be compared anywhere; without a project nothing is known about their use.
    const noProject =
      error instanceof Halt && error.problems[0]?.code === "config.missing" && globals.config === undefined;
    if (!noProject || before === undefined || after === undefined) throw error;
    return impactOfFiles(process.cwd(), before, after);
  }
}
