import { gateOf, gateOptions, type GateFlags } from "../gateOptions.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema generate` to the command line. */
export function addGenerate(line: CommandLine): void {
  const [generateGate, generateJudge] = gateOptions("off");
  line.program
    .command("generate [sdk...]")
    .description("read contracts and queries, report, write the SDKs and pin what they were made from")
    .option("--dry-run", "report, and write nothing")
    .option("--partial", "write an SDK without its bad query documents instead of holding it back")
    .option("--fresh", "fetch remote contracts anew instead of using their copies")
    .option("--files", "print what is read and what is written, as JSON for a build tool, and do nothing else")
    .option("--strict", "a part of a contract that was set aside is an error (exit 1)")
    .addOption(generateGate)
    .addOption(generateJudge)
    .option("--force", "replace generated files that were edited by hand; write beside files of yours")
    .action(
      async (
        sdks: string[],
        flags: GateFlags & Partial<Record<"dryRun" | "partial" | "force" | "fresh" | "strict" | "files", boolean>>,
      ) => {
        if (flags.files === true) {
          const { filesCommand } = await import("../commands/files.js");
          await line.run((terminal) => filesCommand(terminal, line.globals(), sdks));
          return;
        }
        const { generateCommand } = await import("../commands/generate.js");
        const options = {
          sdks,
          dryRun: flags.dryRun === true,
          partial: flags.partial === true,
          force: flags.force === true,
          gate: gateOf(flags),
          fresh: flags.fresh === true,
          strict: flags.strict === true,
        };
        await line.run((terminal) => generateCommand(terminal, line.globals(), options));
      },
    );
}
