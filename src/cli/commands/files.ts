import { chosenSdks } from "../../workspace/generate.js";
import { exitCodes } from "../../workspace/halt.js";
import { buildFiles } from "../../workspace/inputFiles.js";
import { openProject } from "../../workspace/openProject.js";
import type { GlobalOptions, Terminal } from "../terminal.js";

/** `rhema generate --files [sdk…]`: what a build tool has to know, always as JSON. */
export async function filesCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  sdks: readonly string[],
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  terminal.data(buildFiles(project, chosenSdks(project, sdks)));
  return exitCodes.done;
}
