import { isAbsolute, relative } from "node:path";

/** One line of what a compiler or checker prints about source. */
export interface CheckerComplaint {
  /** The file, from the folder that it ran in. */
  readonly file: string;
  /** From 1. */
  readonly line: number;
  readonly column: number;
  /** What it calls the mistake; "error" where it has no name. */
  readonly code: string;
  readonly message: string;
}

const forms = [
  // file(line,column): error CODE: message
  /^(?<file>[^\s(][^(]*)\((?<line>\d+),(?<column>\d+)\): error (?<code>\w+): (?<message>.*)$/,
  // 1700000000000 ERROR "file" line:column "message"
  /^\d+ ERROR "(?<file>(?:[^"\\]|\\.)*)" (?<line>\d+):(?<column>\d+) "(?<message>.*)"$/,
  // e: file:///path:line:column message
  /^e: (?:file:\/\/)?(?<file>\/[^:]*):(?<line>\d+):(?<column>\d+):? (?<message>.*)$/,
  // [ERROR] file:///path:line:column message, and [ERROR] /path:[line,column] message
  /^\[ERROR\] (?:file:\/\/)?(?<file>\/[^:]*):(?<line>\d+):(?<column>\d+):? (?<message>.*)$/,
  /^\[ERROR\] (?<file>\/[^:]*):\[(?<line>\d+),(?<column>\d+)\] (?<message>.*)$/,
  // file:line:column: error: message, and file:line:column - error CODE: message
  /^(?<file>[^\s:][^:]*):(?<line>\d+):(?<column>\d+)(?::| -) error:?(?: (?<code>[A-Z]+\d+):)? (?<message>.*)$/,
];

/** What a compiler or checker complains about, from what it printed; lines that belong to a complaint follow it indented. */
export function checkerComplaints(output: string, folder: string): CheckerComplaint[] {
  const found: CheckerComplaint[] = [];

  for (const line of output.replace(/\u001b\[[\d;]*m/g, "").split(/\r?\n/)) {
    const parts = forms.map((form) => form.exec(line)?.groups).find((groups) => groups !== undefined);
    const last = found.at(-1);
    if (parts) {
      const { file = "", line: row = "1", column = "1", code = "error", message = "" } = parts;
      found.push({
        file: (isAbsolute(file) ? relative(folder, file) : file).replaceAll("\\", "/").replace(/^\.\//, ""),
        line: Number(row),
        column: Number(column),
        code,
        message: unquoted(message),
      });
    } else if (last && /^\s+\S/.test(line))
      found[found.length - 1] = { ...last, message: `${last.message} ${line.trim()}` };
  }
  // Some say at the end once more what they said on the way.
  const known = new Set<string>();
  return found.filter((each) => {
    const key = JSON.stringify(each);
    return known.has(key) ? false : known.add(key);
  });
}

function unquoted(message: string): string {
  return message.replace(/\\"/g, '"').replace(/\\n/g, " ");
}
