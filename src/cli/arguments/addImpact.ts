import { Option } from "commander";
import { reportForms, type ReportForm } from "../output/reportForms.js";
import { gateOf, gateOptions, mostUsersOption, type GateFlags } from "../gateOptions.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema impact` to the command line. */
export function addImpact(line: CommandLine): void {
  const [impactGate, impactJudge] = gateOptions("breaking");
  line.program
    .command("impact [contract...]")
    .description("show what changed in a contract, what it breaks, and where in your code")
    .option("--before <side>", "compare with this instead of the pin: a file, URL, release or git:REVISION")
    .option("--after <side>", "use this instead of the current contract")
    .option("--all", "include compatible changes and changes to what you do not use")
    .option("--fresh", "fetch the current remote contracts for this comparison, without saving them")
    .option("--prove", "compile the app with the new SDK, and show each new error under its change")
    .addOption(new Option("--report <form>", "format of the report").choices(reportForms).default("text"))
    .addOption(impactGate)
    .addOption(impactJudge)
    .addOption(mostUsersOption())
    .action(
      async (
        contracts: string[],
        flags: GateFlags & {
          before?: string;
          after?: string;
          all?: boolean;
          prove?: boolean;
          fresh?: boolean;
          mostUsers?: number;
          report?: ReportForm;
        },
      ) => {
        const { impactCommand } = await import("../commands/impact.js");
        const options = {
          contracts,
          before: flags.before,
          after: flags.after,
          all: flags.all === true,
          prove: flags.prove,
          fresh: flags.fresh === true,
          gate: { ...gateOf(flags), ...(flags.mostUsers === undefined ? {} : { mostUsers: flags.mostUsers }) },
          report: flags.report ?? "text",
        };
        await line.run((terminal) => impactCommand(terminal, line.globals(), options));
      },
    );
}
