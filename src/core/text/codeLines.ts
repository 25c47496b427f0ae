/**
 * A line of code on as many lines as it needs: what is too long goes on behind a comma that stands in no text.
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
