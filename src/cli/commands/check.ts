import { counted } from "../../core/report/paint.js";
import type { Gate } from "../../core/change/judge/gate.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { check } from "../../workspace/check.js";
import { openProject } from "../../workspace/project/openProject.js";
import { problemJson } from "../output/problemJson.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/**
 * `rhema check [sdk…]`: fails if an SDK is stale or edited, or if a query document is not valid.
 *
 * @returns the exit code
 */
export async function checkCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  sdks: readonly string[],
  gate: Gate,
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  const outcome = await check(project, sdks, gate);
  const { paint } = terminal;
  const all = [...outcome.problems, ...outcome.sdks.flatMap((sdk) => sdk.problems)];
  const bad = outcome.sdks.filter((sdk) => !sdk.ok);
  const errors = all.filter((problem) => problem.level === "error").length;
  terminal.note(
    all.filter(terminal.isTold).flatMap((problem) => [...renderProblem(problem, outcome.texts, paint), ""]),
  );
  const headline =
    outcome.exitCode === 0
      ? paint.good(`check: ${counted(outcome.sdks.length, "SDK")} up to date, all queries valid`)
      : paint.bad(
          `check: ${counted(errors, "reason")} to fail${bad.length > 0 ? ` in ${bad.map((sdk) => sdk.name).join(", ")}` : ""}, see above`,
        );
  const rows = outcome.sdks.map(
    (sdk) =>
      `  ${paint.accent(sdk.name)}  ${sdk.ok ? "up to date" : "not up to date"}  ${counted(sdk.files, "file")}  ${paint.quiet(sdk.into)}`,
  );
  terminal.result([headline, ...rows]);
  terminal.document({
    exitCode: outcome.exitCode,
    sdks: outcome.sdks.map((sdk) => ({
      ...sdk,
      problems: sdk.problems.map((problem) => problemJson(problem, outcome.texts)),
    })),
    problems: outcome.problems.map((problem) => problemJson(problem, outcome.texts)),
  });
  return outcome.exitCode;
}
