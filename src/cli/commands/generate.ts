import type { GenerateOptions, GenerateOutcome } from "../../workspace/generate/generateOutcome.js";
import { generate } from "../../workspace/generate/generate.js";
import { readLedger } from "../../workspace/generate/ledger.js";
import { openProject } from "../../workspace/project/openProject.js";
import { hashOf } from "../../workspace/files/textFile.js";
import { reportLines } from "../output/generateReport.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/**
 * `rhema generate [sdk…]`: reads, validates, compares with the pin, reports, and writes the SDK and its pin.
 *
 * @returns the exit code
 */
export async function generateCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: GenerateOptions,
): Promise<number> {
  const startedAt = performance.now();
  const isKnownSound = (root: string, text: string): boolean => {
    try {
      return readLedger({ root }).configuration === hashOf(text);
    } catch {
      // A list of generated files that cannot be read proves nothing. The command itself reports the error.
      return false;
    }
  };
  const project = await openProject(terminal.host, globals.config, { isKnownSound });
  const outcome = await generate(project, options);
  const elapsedMs = Math.round(performance.now() - startedAt);
  if (terminal.json) {
    const { generateJson } = await import("../output/generateJson.js");
    terminal.document(generateJson(outcome, elapsedMs));
    return outcome.exitCode;
  }
  // Finding a place needs a parser that keeps positions. A run without anything to show does not load it.
  const places = hasPlaces(outcome) ? await import("../../core/report/renderProblem.js") : undefined;
  if (places) {
    const { problemLines } = await import("../output/generateProblems.js");
    terminal.note(problemLines(outcome, terminal.paint, terminal.isTold));
  }
  terminal.result(
    reportLines(outcome, elapsedMs, {
      paint: terminal.paint,
      showPlace: places?.placeText ?? (({ document }) => document),
    }),
  );
  return outcome.exitCode;
}

function hasPlaces(outcome: GenerateOutcome): boolean {
  const { problems, sdks, completedEarlier } = outcome;
  const shown = sdks.some(
    (sdk) =>
      sdk.problems.length > 0 ||
      sdk.impacts.length > 0 ||
      sdk.contracts.some((contract) => contract.setAside.length > 0),
  );
  return completedEarlier || problems.length > 0 || shown;
}
