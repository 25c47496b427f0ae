import { chosenSdks } from "../../workspace/generate.js";
import { exitCodes } from "../../workspace/halt.js";
import { buildFiles } from "../../workspace/inputFiles.js";
import { openProject } from "../../workspace/project.js";
import type { GlobalOptions } from "../terminal.js";

/** `rhema generate --files [sdk…]`: what a build tool has to know, always as JSON. */
export async function filesCommand(globals: GlobalOptions, sdks: readonly string[]): Promise<number> {
  const project = await openProject(process.cwd(), globals.config);
  process.stdout.write(`${JSON.stringify(buildFiles(project, chosenSdks(project, sdks)), null, 2)}\n`);
  return exitCodes.done;
}
