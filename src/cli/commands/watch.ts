import { ShownTexts } from "../../core/problem/shownTexts.js";
import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { breaksProject } from "../../core/change/judge/judgedChange.js";
import { worst } from "../../core/change/verdict.js";
import { counted } from "../../core/report/paint.js";
import { placeText, renderProblem } from "../../core/report/renderProblem.js";
import type { GenerateOutcome } from "../../workspace/generate/generateOutcome.js";
import { exitCodes } from "../../workspace/project/halt.js";
import { Watcher, type WatchRun } from "../../workspace/watch.js";
import { problemLines } from "../output/generateProblems.js";
import { problemJson } from "../output/problemJson.js";
import { startPlay, type Player } from "./play.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface WatchCommandOptions {
  readonly sdks: readonly string[];
  readonly partial: boolean;
  /** The port on which the contracts are served, in the same process. */
  readonly playOn: string | undefined;
  /** A command of the app's own that runs at the same time, such as its server; empty for none. */
  readonly beside: readonly string[];
}

const settleMs = 40;
const namesShown = 3;

/**
 * `rhema watch [sdk…] [-- command…]`: regenerates on every save until it is interrupted, or until the command after
 * `--` ends.
 *
 * @returns the exit code, which is that of the command if there is one
 */
export async function watchCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  { sdks, partial, playOn, beside }: WatchCommandOptions,
): Promise<number> {
  const playing = { contracts: [], host: "127.0.0.1", seed: "1", overrides: [], auth: true };
  let player: Promise<Player> | undefined;
  let told = new Set<string>();
  const onRun = async (run: WatchRun): Promise<void> => {
    // A failure to start is reported where the server was started.
    const begun = await player?.catch(() => undefined);
    const isReadable = run.outcome !== undefined && run.outcome.exitCode < exitCodes.usage;
    if (isReadable && run.saved.length > 0) await begun?.reload(run.saved);
    told = reportWritten(run, told, terminal);
    // Finding what breaks takes longer than writing, so it is reported afterwards.
    const impacts = (await run.outcome?.compare?.()) ?? [];
    reportImpacts(run, impacts, terminal);
  };
  const watcher = await Watcher.start(terminal.host, globals.config, { sdks, partial, settleMs, onRun });
  terminal.result([terminal.paint.quiet("watch: waiting for a save, Ctrl-C stops it")]);
  try {
    if (playOn !== undefined) player = startPlay(terminal, globals, { ...playing, port: playOn });
    await player;
    if (beside.length === 0) await terminal.host.interrupted();
    else return await runBeside(beside, terminal);
  } finally {
    await watcher.close();
    const begun = await player?.catch(() => undefined);
    await begun?.close();
  }
  return exitCodes.done;
}

/** Runs a command until it ends or Rhema is interrupted, and returns its exit code. */
async function runBeside(words: readonly string[], { host, json }: Terminal): Promise<number> {
  const { startBeside } = await import("../process/besideCommand.js");
  const { ended, end } = await startBeside(words, host, json);
  const isInterrupted = await Promise.race([ended.then(() => false), host.interrupted().then(() => true)]);
  return (await end()) ?? (isInterrupted ? exitCodes.done : exitCodes.findings);
}

/**
 * Reports what a run wrote. Warnings and notes of the run before are not repeated.
 *
 * @returns the problems of this run, for the next one
 */
function reportWritten(run: WatchRun, told: ReadonlySet<string>, terminal: Terminal): Set<string> {
  const { paint } = terminal;
  const { outcome, halt } = run;
  if (halt) {
    const texts = new ShownTexts((document) => halt.texts.get(document));
    terminal.note(halt.problems.flatMap((each) => renderProblem(each, texts, paint)));
    terminal.result([paint.bad(`watch: ${savedNames(run.saved)} cannot be read, the SDK stays unchanged`)]);
    terminal.line({ saved: run.saved, problems: halt.problems.map((each) => problemJson(each, texts)), sdks: [] });
    return new Set(told);
  }
  if (!outcome) return new Set(told);
  terminal.note(
    problemLines(
      outcome,
      paint,
      (each) => terminal.isTold(each) && (each.level === "error" || !told.has(each.message)),
    ),
  );
  terminal.result([headline(run, outcome, terminal)]);
  const said = outcome.sdks.flatMap(({ problems }) => problems).map(({ message }) => message);
  // If something could not be read, it is unknown which of the earlier problems still exist.
  return new Set(outcome.exitCode < exitCodes.usage ? said : [...told, ...said]);
}

/** Reports what a run breaks, for machines everything on one line. */
function reportImpacts(run: WatchRun, impacts: readonly ContractImpact[], terminal: Terminal): void {
  const { outcome } = run;
  if (!outcome || run.halt) return;
  const lines = impactLines(impacts, outcome, terminal);
  if (lines.length > 0) terminal.result(lines);
  terminal.line({
    saved: run.saved,
    elapsedMs: Math.round(run.elapsedMs),
    sdks: outcome.sdks.map(({ name, state, files }) => ({ name, state, files })),
    problems: outcome.sdks.flatMap(({ problems }) => problems).map((each) => problemJson(each, outcome.texts)),
    changes: impacts.flatMap(({ contract, changes }) =>
      changes.map(({ code, message, verdict, use }) => ({ contract, code, message, verdict, use })),
    ),
  });
}

function savedNames(saved: readonly string[]): string {
  const shown = saved.slice(0, namesShown).join(", ");
  return saved.length === 0
    ? "the project"
    : saved.length > namesShown
      ? `${shown} and ${String(saved.length - namesShown)} more`
      : shown;
}

function headline({ saved, elapsedMs }: WatchRun, { sdks, exitCode }: GenerateOutcome, { paint }: Terminal): string {
  const held = sdks.filter(({ state }) => state === "held back");
  const written = sdks.filter(({ state }) => state === "written");
  const what = saved.length === 0 ? "watch:" : `watch: ${savedNames(saved)} saved,`;
  if (exitCode >= exitCodes.usage) {
    const stays = held.length === 1 ? "stays unchanged" : "stay unchanged";
    const others = written.length === 0 ? "" : `, ${written.map(({ name }) => name).join(", ")} written`;
    const which = sdks.length === 1 ? "the SDK" : held.map(({ name }) => name).join(", ");
    return paint.bad(`watch: ${savedNames(saved)} cannot be read, ${which} ${stays}${others}`);
  }
  if (held.length > 0) return paint.bad(`${what} ${held.map(({ name }) => name).join(", ")} not written`);
  if (written.length === 0) return paint.good(`${what} ${sdks.map(({ name }) => name).join(", ")} up to date`);
  const files = written.reduce((count, sdk) => count + sdk.files.added + sdk.files.changed + sdk.files.removed, 0);
  const names = written.map(({ name }) => name).join(", ");
  const took = paint.quiet(` in ${elapsedMs.toFixed(0)} ms`);
  return `${paint.good(`${what} ${names} ${files === 0 ? "the same" : `${counted(files, "file")} written`}`)}${took}`;
}

/** The effect of a save on the project: the number of changes, and the most severe one with its first place. */
function impactLines(impacts: readonly ContractImpact[], outcome: GenerateOutcome, { paint }: Terminal): string[] {
  const changes = impacts.flatMap((impact) => impact.changes);
  if (changes.length === 0) return [];
  const [heaviest, ...others] = changes.filter(breaksProject);
  if (!heaviest) {
    const risky = changes.filter((change) => change.use !== "not used" && worst(change.verdict) === "risky").length;
    const rest = risky > 0 ? paint.warn(`${String(risky)} risky to what you use`) : "none breaks what you use";
    return [`  ${counted(changes.length, "change")}, ${rest}`];
  }
  const [hit, ...more] = heaviest.hits;
  const where = hit ? `  ${placeText(hit.place, outcome.texts)}` : "";
  const count = more.length > 0 ? ` and ${String(more.length)} more` : "";
  const rest = others.length > 0 ? `, and ${counted(others.length, "other break")}` : "";
  return [`  ${paint.bad("x")} ${heaviest.message}${paint.quiet(`${where}${count}${rest}`)}`];
}
