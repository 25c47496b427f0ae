import { ShownTexts } from "../core/problem/shownTexts.js";
import { exitCodes, Halt } from "../workspace/project/halt.js";
import type { Host } from "./process/host.js";
import { openTerminal, type GlobalOptions, type Terminal } from "./output/terminal.js";

/**
 * Runs a command and returns its exit code. A Halt is reported as problems. Any other error is reported as an internal
 * error.
 */
export async function runCommand(
  host: Host,
  options: GlobalOptions,
  command: (terminal: Terminal) => Promise<number>,
): Promise<number> {
  const terminal = openTerminal(host, options);
  // Errors outside of the command, such as in a watcher, are reported in the same way. Node would show a line of the
  // whole program.
  host.onUncaught((error) => {
    tellDefect(terminal, error);
    host.exit(exitCodes.defect);
  });
  try {
    const exitCode = await command(terminal);
    terminal.host.trace(() => `ended with exit code ${String(exitCode)}`);
    return exitCode;
  } catch (error) {
    if (error instanceof Halt) {
      const { renderProblem } = await import("../core/report/renderProblem.js");
      const { problemJson } = await import("./output/problemJson.js");
      const texts = new ShownTexts((document) => error.texts.get(document));
      terminal.note(error.problems.flatMap((problem) => renderProblem(problem, texts, terminal.paint)));
      terminal.document({
        exitCode: error.exitCode,
        problems: error.problems.map((problem) => problemJson(problem, texts)),
      });
      return error.exitCode;
    }
    tellDefect(terminal, error);
    return exitCodes.defect;
  }
}

function tellDefect({ defect }: Terminal, error: unknown): void {
  const detail = error instanceof Error ? (error.stack ?? error.message) : String(error);
  defect(["Internal error: a bug in Rhema. Your files are unchanged.", detail]);
}
