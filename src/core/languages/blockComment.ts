/**
 * Returns a doc comment in the form that several languages have; "" without lines.
 *
 * @param lines text that cannot end the comment
 * @param indent the text before every line
 */
export function blockComment(lines: readonly string[], indent = ""): string {
  const [only] = lines;
  if (only === undefined) return "";
  if (lines.length === 1) return `${indent}/** ${only} */\n`;
  return `${indent}/**\n${lines.map((line) => `${indent} * ${line}`.trimEnd()).join("\n")}\n${indent} */\n`;
}
