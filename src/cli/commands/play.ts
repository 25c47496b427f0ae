import { ShownTexts } from "../../core/problem/shownTexts.js";
import { problem } from "../../core/problem/problem.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { counted } from "../../core/report/paint.js";
import type { JournalEntry } from "../../standin/journal.js";
import { createStandin } from "../../standin/standin.js";
import { readStandingOverride } from "../../standin/override.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { savedSince } from "../../workspace/files/inputFiles.js";
import { InputWatcher } from "../../workspace/inputWatcher.js";
import type { Project } from "../../workspace/project/project.js";
import { openProject } from "../../workspace/project/openProject.js";
import { listen } from "../network/listen.js";
import { readPlayed } from "../readPlayed.js";
import { socketUpgrade } from "../network/socketUpgrade.js";
import { wholeNumber } from "../wholeNumber.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface PlayOptions {
  readonly contracts: readonly string[];
  readonly port: string;
  readonly host: string;
  readonly seed: string;
  readonly overrides: readonly string[];
  readonly auth: boolean;
}

const eventEveryMs = 1000;
const settleMs = 60;

/**
 * `rhema play [contract…]`: runs the stand-in server until it is interrupted.
 *
 * @returns the exit code
 */
export async function playCommand(terminal: Terminal, globals: GlobalOptions, options: PlayOptions): Promise<number> {
  let readAt = Date.now();
  const player = await startPlay(terminal, globals, options);
  const watcher = new InputWatcher(settleMs, async (saved) => {
    readAt = Date.now();
    await observe(await player.reload(saved));
  });
  // Saves that were missed before the new places were watched are handled now.
  const observe = async (project: Project): Promise<void> => {
    if (await watcher.observe(project)) watcher.again(savedSince(project, readAt), settleMs);
  };
  await observe(player.project);
  await terminal.host.interrupted();
  await watcher.close();
  await player.close();
  return exitCodes.done;
}

/** A running stand-in server. */
export interface Player {
  readonly project: Project;
  /** Reads the contracts again and serves them from now on. One that cannot be read is served as before. */
  readonly reload: (saved: readonly string[]) => Promise<Project>;
  readonly close: () => Promise<void>;
}

/** Starts the stand-in server and prints its address. @throws Halt if an override or the port is not valid */
export async function startPlay(terminal: Terminal, globals: GlobalOptions, options: PlayOptions): Promise<Player> {
  const port = wholeNumber("--port", options.port, 65_535);
  const seed = wholeNumber("--seed", options.seed, 2 ** 31);
  const overrides = options.overrides.map((text) => {
    const override = readStandingOverride(text);
    if (typeof override !== "string") return override;
    throw new Halt([problem("play.override", `Invalid --override "${text}": ${override}.`)], exitCodes.usage);
  });
  let project = await openProject(terminal.host, globals.config);
  const { paint } = terminal;
  const played = await readPlayed(project, options.contracts, terminal);
  const onCall = ({ method, path, status, misfits, faults }: JournalEntry): void => {
    if (terminal.quiet) return;
    const shown = status < 400 ? paint.good(String(status)) : paint.warn(String(status));
    const [first] = [...misfits, ...faults.map((fault) => `the response ${fault}`)];
    terminal.note([`  ${shown} ${method} ${path}${first === undefined ? "" : paint.quiet(`  ${firstLine(first)}`)}`]);
  };
  const standin = createStandin(played, { seed, eventEveryMs, onCall, overrides, asksAuth: options.auth });
  const address = await listen((request, server) => standin.fetch(request, server), options.host, {
    port,
    onUpgrade: socketUpgrade(standin),
  });
  const base = `http://${options.host.includes(":") ? `[${options.host}]` : options.host}:${String(address.port)}`;
  terminal.result([
    paint.good(`play: ${counted(played.length, "contract")} at ${base}, Ctrl-C stops it`),
    ...played.map(
      ({ contract }) =>
        `  ${paint.accent(contract.name)}  ${base}/${contract.name}  ${paint.quiet(contract.protocol === "rest" ? counted(contract.operations.length, "operation") : "GraphQL by POST")}`,
    ),
    paint.quiet(`  page with samples of every operation, and the last requests: ${base}/`),
  ]);
  terminal.document({
    playing: played.map(({ contract }) => ({
      contract: contract.name,
      protocol: contract.protocol,
      url: `${base}/${contract.name}`,
    })),
  });
  return {
    project,
    reload: async (saved) => {
      try {
        project = await openProject(terminal.host, globals.config);
        standin.replace(await readPlayed(project, options.contracts, terminal));
        if (!terminal.quiet) terminal.note([paint.quiet(`  ${saved.join(", ")} saved and now in use`)]);
      } catch (error) {
        if (!(error instanceof Halt)) throw error;
        const texts = new ShownTexts((document) => error.texts.get(document));
        terminal.note([
          ...error.problems.flatMap((each) => renderProblem(each, texts, paint)),
          paint.warn("  the previous contracts stay in use"),
        ]);
      }
      return project;
    },
    close: address.close,
  };
}

function firstLine(text: string): string {
  return text.split("\n", 1)[0] ?? "";
}
