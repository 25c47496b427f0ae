import { counted } from "../../core/report/paint.js";
import { problem } from "../../core/problem/problem.js";
import { chosenContracts } from "../../workspace/configuration/chosenContracts.js";
import { draft, type DraftOutcome } from "../../workspace/draft.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { openProject } from "../../workspace/project/openProject.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface DraftCommandOptions {
  readonly contract: string;
  readonly fields: readonly string[];
  readonly depth: string;
  readonly into: string | undefined;
}

const deepest = 12;

/**
 * `rhema draft <contract> [field…]`: writes query documents for a schema without any.
 *
 * @returns the exit code
 * @throws Halt if an option is not valid
 */
export async function draftCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  { contract, fields, depth, into }: DraftCommandOptions,
): Promise<number> {
  const levels = Number(depth);
  if (!/^\d+$/.test(depth) || levels < 1 || levels > deepest) {
    const message = `--depth must be a whole number from 1 to ${String(deepest)}, but is \`${depth}\`.`;
    throw new Halt([problem("option.value", message, { hint: "3 suits most schemas." })], exitCodes.usage);
  }
  const project = await openProject(terminal.host, globals.config);
  const [name = contract] = chosenContracts(project, [contract]);
  const outcome = await draft(project, name, { fields, depth: levels, into });
  terminal.result(report(outcome, name, terminal));
  terminal.document({ ...outcome, exitCode: exitCodes.done });
  return exitCodes.done;
}

function report({ drafts, folder, missingPattern }: DraftOutcome, contract: string, { paint }: Terminal): string[] {
  const written = drafts.filter(({ state }) => state === "written");
  const words = { written: "", there: "  skipped, the file exists", asked: "  skipped, already queried" };
  const head =
    drafts.length === 0
      ? paint.warn(`draft: ${contract} has no root field`)
      : written.length === 0
        ? paint.good("draft: nothing to write, all root fields are queried")
        : paint.good(`draft: ${counted(written.length, "document")} written to ${folder}`);
  const next =
    missingPattern === undefined
      ? ["  Remove what you do not need, then run `rhema generate`."]
      : [`  Set \`queries: ["${missingPattern}"]\` under \`${contract}\`, then run \`rhema generate\`.`];
  return [
    head,
    ...drafts.map(
      ({ name, path, state }) =>
        `  ${state === "written" ? paint.accent(name) : paint.quiet(name)}  ${path}${paint.quiet(words[state])}`,
    ),
    ...(written.length === 0 ? [] : next),
  ];
}
