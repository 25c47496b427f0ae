import { gateOf, gateOptions, type GateFlags } from "../gateOptions.js";
import type { CommandLine } from "./commandLine.js";

/** Adds `rhema generate` to the command line. */
export function addGenerate(line: CommandLine): void {
  const [generateGate, generateJudge] = gateOptions("off");
  line.program
    .command("generate [sdk...]")
    .description("generate SDKs from contracts and queries, and pin the contracts")
    .option("--dry-run", "report only, write nothing")
    .option("--partial", "leave out invalid query documents instead of not writing the SDK")
    .option("--fresh", "fetch remote contracts again instead of using their copies")
    .option("--files", "print the files that are read and written, as JSON for a build tool, and do nothing else")
    .option("--strict", "fail if a part of a contract is skipped (exit 1)")
    .addOption(generateGate)
    .addOption(generateJudge)
    .option("--force", "replace edited generated files, and write next to your own files")
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
