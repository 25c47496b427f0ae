import { renderReplaceable } from "../../core/report/renderReplaceable.js";
import { placeText } from "../../core/report/renderProblem.js";
import { chosenContracts } from "../../workspace/configuration/chosenContracts.js";
import { exitCodes } from "../../workspace/project/halt.js";
import { openProject } from "../../workspace/project/openProject.js";
import { replaceable } from "../../workspace/uses/replaceable.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/**
 * `rhema outline --replaceable [contract…]`: lists hand-written code of the app that an SDK has too.
 *
 * @returns the exit code
 */
export async function replaceableCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  contracts: readonly string[],
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  const { found, unknown, unwritten, texts } = await replaceable(project, chosenContracts(project, contracts));
  const notes = [
    ...unwritten.map((sdk) => `${sdk} has not been generated yet, so types were not compared. Run \`rhema generate\`.`),
    ...unknown.map((sdk) => `${sdk} has a language that this option does not support`),
  ];
  terminal.note(notes.map((note) => terminal.paint.quiet(note)));
  terminal.result(renderReplaceable(found, { texts, paint: terminal.paint }));
  terminal.document({
    replaceable: found.map((each) => ({ ...each, place: placeText(each.place, texts) })),
    unknown,
    unwritten,
    exitCode: exitCodes.done,
  });
  return exitCodes.done;
}
