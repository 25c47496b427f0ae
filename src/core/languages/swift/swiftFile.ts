import { joinedBlocks } from "../joinedBlocks.js";

/** The first line of every file. */
const header =
  "// Written by rhema generate. Do not edit: the next run replaces this file. Change the contract or the query documents instead.";

/** The columns of a line, the same as swift-format's. */
export const widest = 100;

/** Returns the text of a file: the header, the imports, then the parts with a blank line between them. */
export function fileText(parts: readonly string[], modules: readonly string[] = []): string {
  const isFoundationUsed = parts.some((part) => part.includes("Foundation.") && /\bFoundation\./.test(part));
  const imports = [...new Set([...(isFoundationUsed ? ["Foundation"] : []), ...modules])].sort();
  return fittedLines(joinedBlocks([header, imports.map((name) => `import ${name}`).join("\n"), ...parts]));
}

/** Wraps the lines of a text that are too wide. */
function fittedLines(text: string): string {
  const parts: string[] = [];
  let from = 0;
  let kept = 0;
  for (let end = text.indexOf("\n"); end >= 0; end = text.indexOf("\n", from)) {
    if (end - from > widest) {
      const line = text.slice(from, end);
      const made = fitted(line);
      if (made !== line) {
        parts.push(text.slice(kept, from), made);
        kept = end;
      }
    }
    from = end + 1;
  }
  return parts.length === 0 ? text : [...parts, text.slice(kept)].join("");
}

/**
 * Returns an expression with a list in brackets, on one line if it fits, otherwise each item on a line of its own.
 *
 * @param before the text before the bracket, on the same line, with its indentation
 * @param after the text after it
 */
export function listed(
  before: string,
  given: readonly string[],
  after: string,
  [open, close]: readonly [string, string] = ["(", ")"],
): string {
  const line = `${before}${open}${given.join(", ")}${close}${after}`;
  if (given.length === 0 || (!line.includes("\n") && line.length <= widest)) return line;
  const indent = /^ */.exec(before)?.[0] ?? "";
  const inner = given.map((each) => `${indent}  ${each.replace(/\n/g, "\n  ")}`).join(",\n");
  return `${before}${open}\n${inner}${lastComma(open, given.length)}\n${indent}${close}${after}`;
}

/** The text after the last of several lines: a literal of several elements has a comma there. */
function lastComma(open: string, count: number): string {
  return open === "[" && count > 1 ? "," : "";
}

/** A line as it is if it fits, otherwise with the list in its last brackets on lines of their own. */
function fitted(line: string): string {
  if (line.length <= widest || /^ *\/\//.test(line)) return line;
  const indent = /^ */.exec(line)?.[0] ?? "";
  const [, head, rest] = afterColon.exec(line) ?? [];
  if (head !== undefined && rest !== undefined) return `${head}\n${fitted(`${indent}  ${rest}`)}`;
  const [, before, types, after] = ofTypes.exec(line) ?? [];
  if (before !== undefined && types !== undefined && after !== undefined)
    return `${before}<\n${indent}  ${types}\n${indent}>(${after}`;
  const group = lastList(line);
  if (!group) return line;
  const inner = group.items.map((each) => fitted(`${indent}  ${each}`)).join(",\n");
  const comma = lastComma(line[group.open] ?? "", group.items.length);
  return `${line.slice(0, group.open + 1)}\n${inner}${comma}\n${indent}${line.slice(group.close)}`;
}

/** A case with its code, or a property whose type is an optional function. */
const afterColon =
  /^( *(?:case (?:"(?:[^"\\]|\\.)*"|[^":])+:|(?:(?:public|static) )*var \S+:)) (return .*|[.\w]+\(.*|\(.*\)\?)$/;

/** The creation of a value of a generic type. */
const ofTypes = /^( *(?:static )?let \S+ = [\w.]+)<(.+)>\((.*)$/;

/** The outermost brackets of a line with most of its text, and the parts between their commas. */
function lastList(
  line: string,
): { readonly open: number; readonly close: number; readonly items: string[] } | undefined {
  let best: { open: number; close: number; items: string[] } | undefined;
  const open: number[] = [];
  let commas: number[] = [];
  for (let at = 0; at < line.length; at++) {
    const character = line[at] ?? "";
    if (character === '"') {
      at = endOfText(line, at);
      continue;
    }
    if ("([<".includes(character)) {
      if (open.length === 0) commas = [];
      open.push(at);
    } else if (")]".includes(character) || (character === ">" && line[at - 1] !== "-")) {
      const start = open.pop();
      if (start === undefined) return undefined;
      if (open.length > 0) continue;
      if (isList(line, start, at) && (!best || at - start > best.close - best.open)) {
        const cuts = [start, ...commas, at];
        const items = cuts.slice(1).map((cut, place) => line.slice((cuts[place] ?? 0) + 1, cut).trim());
        best = { open: start, close: at, items };
      }
    } else if (character === "," && open.length === 1) commas.push(at);
  }
  return open.length === 0 ? best : undefined;
}

/** Whether the text between brackets is a list of values or parameters, not a type. */
function isList(line: string, start: number, end: number): boolean {
  if (end === start + 1 || line[start] === "<") return false;
  return line[start] === "(" || (/["(.]/.test(line.slice(start, end)) && !line.slice(0, start).endsWith("-> "));
}

function endOfText(line: string, start: number): number {
  for (let at = start + 1; at < line.length; at++) {
    if (line[at] === "\\") at++;
    else if (line[at] === '"') return at;
  }
  return line.length;
}
