import { chosenSdks } from "../../workspace/generate/generate.js";
import { exitCodes } from "../../workspace/project/halt.js";
import { buildFiles } from "../../workspace/files/inputFiles.js";
import { openProject } from "../../workspace/project/openProject.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

/**
 * `rhema generate --files [sdk…]`: prints inputs and outputs for a build tool, always as JSON.
 *
 * @returns the exit code
 */
export async function filesCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  sdks: readonly string[],
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  terminal.data(buildFiles(project, chosenSdks(project, sdks)));
  return exitCodes.done;
}
