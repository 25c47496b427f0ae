import { gateOf, gateOptions, type GateFlags } from "../gateOptions.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema check` to the command line. */
export function addCheck(line: CommandLine): void {
  const [checkGate, checkJudge] = gateOptions("breaking");
  line.program
    .command("check [sdk...]")
    .description(
      "fail if an SDK is out of date, a query is invalid, or something broke since the guarded revision; writes nothing",
    )
    .addOption(checkGate)
    .addOption(checkJudge)
    .action(async (sdks: string[], flags: GateFlags) => {
      const { checkCommand } = await import("../commands/check.js");
      await line.run((terminal) => checkCommand(terminal, line.globals(), sdks, gateOf(flags)));
    });
}
