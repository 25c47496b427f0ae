/**
 * A doc comment of lines that are safe to stand in one, in the form that several languages have; "" of none.
 *
 * @param indent stands before every line
 */
export function blockComment(lines: readonly string[], indent = ""): string {
  const [only] = lines;
  if (only === undefined) return "";
  if (lines.length === 1) return `${indent}/** ${only} */\n`;
  return `${indent}/**\n${lines.map((line) => `${indent} * ${line}`.trimEnd()).join("\n")}\n${indent} */\n`;
}
