import { gateOf, gateOptions, type GateFlags } from "../gateOptions.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema check` to the command line. */
export function addCheck(line: CommandLine): void {
  const [checkGate, checkJudge] = gateOptions("breaking");
  line.program
    .command("check [sdk...]")
    .description(
      "write nothing; fail when an SDK is stale, a query does not fit, or something broke since the guarded revision",
    )
    .addOption(checkGate)
    .addOption(checkJudge)
    .action(async (sdks: string[], flags: GateFlags) => {
      const { checkCommand } = await import("../commands/check.js");
      await line.run((terminal) => checkCommand(terminal, line.globals(), sdks, gateOf(flags)));
    });
}
