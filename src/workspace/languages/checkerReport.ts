import { isAbsolute, relative } from "node:path";

/** One error in the output of a compiler or checker. */
export interface CheckerComplaint {
  /** The file, relative to the folder in which it ran. */
  readonly file: string;
  /** From 1. */
  readonly line: number;
  readonly column: number;
  /** Its name for the error; "error" if it has none. */
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

/**
 * Returns the errors in the output of a compiler or checker. The lines after an error belong to it if they are
 * indented.
 */
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
  // Some checkers repeat all errors at the end.
  const known = new Set<string>();
  return found.filter((each) => {
    const key = JSON.stringify(each);
    return known.has(key) ? false : known.add(key);
  });
}

function unquoted(message: string): string {
  return message.replace(/\\"/g, '"').replace(/\\n/g, " ");
}
