import { chunks } from "../../../text/chunks.js";
import type { FileContext } from "../contractContext.js";

/** The largest number of fields that one method reads or writes, because a method has at most 64 KB. */
export const mostTogether = 200;

/**
 * Prints the writer of a record: one method, or several if it is too large for one.
 *
 * @param type the record as source
 * @param lines the writer's lines, each with its line break and without indentation
 * @param around wraps the lines of one method; `isWhole` if there is only one
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
