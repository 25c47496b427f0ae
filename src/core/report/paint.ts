/** How a report marks text. The command line passes colours, and everything else passes plain text through. */
export interface Paint {
  readonly strong: (text: string) => string;
  readonly quiet: (text: string) => string;
  readonly good: (text: string) => string;
  readonly bad: (text: string) => string;
  readonly warn: (text: string) => string;
  readonly accent: (text: string) => string;
}

const same = (text: string): string => text;

export const plainPaint: Paint = { strong: same, quiet: same, good: same, bad: same, warn: same, accent: same };

/**
 * Returns a number with its noun: "1 call", "2 calls".
 *
 * @param one the singular
 * @param many the plural
 */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${String(count)} ${count === 1 ? one : many}`;
}

/**
 * Breaks a sentence at spaces.
 *
 * @param width the largest width of a line in columns
 * @param indent the indentation of all lines but the first
 */
export function wrap(text: string, width: number, indent = ""): string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(/[ \t\n]+/)) {
    if (line !== "" && line.length + 1 + word.length > width) {
      lines.push(line);
      line = indent + word;
    } else line = line === "" ? word : `${line} ${word}`;
  }
  return line === "" ? lines : [...lines, line];
}
