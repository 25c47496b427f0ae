import { chunks } from "../../../text/chunks.js";
import type { FileContext } from "../contractContext.js";

/** As many fields as one method reads or writes: a method has 64 KB at most. */
export const mostTogether = 200;

/**
 * Prints what writes a record: one method, or several where there is too much for one.
 *
 * @param type the record as source spells it
 * @param lines of the writer, each with its line break, without an indent
 * @param around what the lines of one method stand in; `isWhole` where they are all there are
 */
export function writeMethods(
  type: string,
  lines: readonly string[],
  {
    context,
    around = (all) => all,
  }: {
    readonly context: FileContext;
    readonly around?: ((lines: readonly string[], isWhole: boolean) => readonly string[]) | undefined;
  },
): string {
  const { uses } = context;
  const json = uses.other("kotlinx.serialization.json.JsonElement");
  const start = `    override fun write(value: ${type}): ${json} = ${uses.wire("writeRecord")} {`;
  if (lines.length === 0) return `${start}}\n`;
  const body = (all: readonly string[]): string => `        ${all.join("        ")}    }\n`;
  const groups = chunks(lines, mostTogether);
  if (groups.length === 1) return `${start}\n${body(around(lines, true))}`;
  const functions = groups.map(
    (group, at) =>
      `\n    private fun ${uses.wire("RecordWriter")}.write${String(at)}(value: ${type}) {\n${body(around(group, false))}`,
  );
  return `${start}\n${body(groups.map((_, at) => `write${String(at)}(value)\n`))}${functions.join("")}`;
}
