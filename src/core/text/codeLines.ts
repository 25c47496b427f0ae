/**
 * Splits a line of code that is too long after commas outside of strings.
 *
 * @param most columns of a line
 */
export function codeLines(code: string, most: number): string[] {
  const pieces = code.match(/(?:"(?:[^"\\]|\\.)*"|[^,]|,(?! ))+(?:, )?|, /g) ?? [code];
  const further = `${/^ */.exec(code)?.[0] ?? ""}  `;
  const lines: string[] = [""];
  for (const piece of pieces) {
    const last = lines.at(-1) ?? "";
    if (last !== "" && last.length + piece.trimEnd().length > most) lines.push(further + piece);
    else lines[lines.length - 1] = last + piece;
  }
  return lines.map((line) => line.trimEnd());
}
