import { ShownTexts } from "../../core/problem/shownTexts.js";
import { holdsAny, type Gate } from "../../core/change/judge/gate.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { impactFindings } from "../../core/report/impactFindings.js";
import { impactChangelog } from "../../core/report/impactChangelog.js";
import { impactPage } from "../../core/report/impactPage.js";
import { impactMarkdown } from "../../core/report/impactMarkdown.js";
import { annotations, junit, sarif } from "../../core/report/machineReports.js";
import type { Paint } from "../../core/report/paint.js";
import { servedText } from "../../core/report/usersText.js";
import { mergedReleases, type Served } from "../../core/change/judge/releasedUsers.js";
import { renderImpact, renderProof, type ImpactTexts } from "../../core/report/renderImpact.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { visibleJson } from "../../core/text/visible.js";
import { outlivedAcceptances } from "../../workspace/impact/acceptances.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { impact, impactOfFiles, type ImpactOptions, type ImpactOutcome } from "../../workspace/impact/impact.js";
import { ageText, type UsedCopy } from "../../workspace/sources/copyAge.js";
import { version } from "../../workspace/files/packageFolder.js";
import { openProject } from "../../workspace/project/openProject.js";
import type { ReportForm } from "../output/reportForms.js";
import type { CompileError } from "../../core/use/compileError.js";
import { placeJson } from "../output/problemJson.js";
import { impactJson } from "../output/impactJson.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface ImpactCommandOptions extends ImpactOptions {
  /** Whether changes of unused parts are listed too. */
  readonly all: boolean;
  readonly gate: Gate;
  readonly report: ReportForm;
}

/**
 * `rhema impact [contract…]`: shows what changed, what it breaks, and where.
 *
 * @returns the exit code: 1 if something in use breaks
 */
export async function impactCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: ImpactCommandOptions,
): Promise<number> {
  const outcome = await findImpact(globals, options, terminal);
  const { paint } = terminal;
  const texts = { before: outcome.beforeTexts, after: outcome.afterTexts };
  for (const name of terminal.quiet ? [] : outcome.unpinned)
    terminal.note([`${name}: nothing to compare with yet; \`rhema generate\` pins the contract.`]);
  terminal.note(
    outcome.problems.filter(terminal.isTold).flatMap((each) => [...renderProblem(each, texts.before, paint), ""]),
  );
  const released = outcome.releases.map(({ impact }) => impact);
  const { served } = outcome;
  const all = [
    ...outcome.impacts,
    ...mergedReleases(
      outcome.releases.filter(({ impact: { changes, brokenQueries } }) => changes.length + brokenQueries.length > 0),
    ),
  ];
  // Finding the lines of thousands of places takes time, so only the shown report is made.
  if (all.length > 0 && !terminal.json) terminal.result(reportOf(all, texts, { ...options, served }, paint));
  const { proof } = outcome;
  if (options.report === "text" && !terminal.json && outcome.copies.length > 0)
    terminal.result(["", ...copyLines(outcome.copies).map((line) => paint.quiet(line))]);
  if (served && options.report === "text" && !terminal.json)
    terminal.result(["", ...servedText(served).map((line) => paint.strong(line))]);
  if (proof && options.report === "text")
    terminal.result(renderProof(proof, outcome.impacts, { texts: texts.before, paint }));
  const held = [...outcome.impacts, ...released].some((each) => holdsAny(each, options.gate));
  const exitCode = held ? exitCodes.findings : exitCodes.done;
  if (!terminal.json) return exitCode;
  terminal.document({
    exitCode,
    contracts: outcome.impacts.map((each) => impactJson(each, texts.before, texts.after)),
    releases: outcome.releases.map(({ release, impact }) => ({
      release: release.name,
      share: release.share,
      ...impactJson(impact, texts.before, texts.after),
    })),
    served,
    copies: outcome.copies.map(({ contract, file, from }) => ({ contract, file, from: from.toISOString() })),
    unpinned: outcome.unpinned,
    ...(proof
      ? {
          proof: {
            unexplained: errorsJson(proof.unexplained, texts),
            before: errorsJson(proof.before, texts),
            unproved: proof.unproved,
          },
        }
      : {}),
  });
  return exitCode;
}

/** The copies that were compared, their age, and how to fetch them again. */
function copyLines(copies: readonly UsedCopy[]): string[] {
  const now = new Date();
  return copies.flatMap(({ contract, file, from }) => [
    `${contract}: compared with its copy, which is ${ageText(from, now)}; \`rhema impact --fresh\` fetches it`,
    `  ${file}`,
  ]);
}

function errorsJson(errors: readonly CompileError[], texts: ImpactTexts): object[] {
  return errors.map(({ place, code, message }) => ({ code, message, ...placeJson(place, texts.before) }));
}

function reportOf(
  impacts: readonly ContractImpact[],
  texts: ImpactTexts,
  { report, gate, all, served }: ImpactCommandOptions & { readonly served: Served | undefined },
  paint: Paint,
): string[] {
  if (report === "text") return renderImpact(impacts, texts, { paint, all });
  if (report === "markdown") return [impactMarkdown(impacts, texts, { gate, served }).trimEnd()];
  if (report === "changelog") return [impactChangelog(impacts).trimEnd()];
  if (report === "html") return [impactPage(impacts, texts, { gate, served }).trimEnd()];
  const findings = impactFindings(impacts, texts, gate);
  if (report === "sarif") return [visibleJson(sarif(findings, version), 2)];
  const contracts = [...new Set(impacts.map(({ contract }) => contract))];
  return report === "junit" ? [junit(findings, contracts)] : annotations(findings);
}

async function findImpact(
  globals: GlobalOptions,
  options: ImpactCommandOptions,
  terminal: Terminal,
): Promise<ImpactOutcome> {
  const { before, after } = options;
  try {
    const project = await openProject(terminal.host, globals.config);
    terminal.note(
      [...project.problems, ...outlivedAcceptances(project)]
        .filter(terminal.isTold)
        .flatMap((problem) => renderProblem(problem, new ShownTexts(() => project.configText), terminal.paint)),
    );
    return await impact(project, terminal.host.folder, {
      ...options,
      countsUsers: options.gate.mostUsers !== undefined,
    });
  } catch (error) {
    // Two files can be compared anywhere. Without a project, their use is unknown.
    const noProject =
      error instanceof Halt && error.problems[0]?.code === "config.missing" && globals.config === undefined;
    if (!noProject || before === undefined || after === undefined) throw error;
    return await impactOfFiles(terminal.host, before, after);
  }
}
