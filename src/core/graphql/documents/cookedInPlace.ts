interface Range {
  readonly start: number;
  readonly end: number;
}

/**
 * The value of a string or template literal, standing where the literal stands in its file: everything before it is
 * blank, and what escapes make shorter is made up for by blanks outside of GraphQL's own strings and comments. So an
 * offset in the result is an offset in the file.
 *
 * An interpolation at the outermost level (a fragment that the app adds) becomes blank.
 *
 * @param holes the interpolations, delimiters included
 * @returns the interpolation in the way, when one stands inside a definition
 */
export function cookedInPlace(
  file: string,
  start: number,
  end: number,
  holes: readonly Range[],
): { readonly text: string } | { readonly refused: Range } {
  let text = " ".repeat(start);
  let owed = 0;
  let depth = 0;
  let state: "code" | "comment" | "string" | "block" = "code";
  let isBetween = true;
  let at = start;
  const put = (piece: string, taken: number): void => {
    text += piece;
    owed += taken - piece.length;
    at += taken;
  };
  while (at < end) {
    const hole = holes.find((each) => each.start === at);
    if (hole) {
      if (state === "comment" || state === "code") {
        // Only between definitions can an interpolation be a definition.
        const isOutside = state === "code" && depth === 0 && isBetween && endsDefinition(file.slice(hole.end, end));
        if (state === "code" && !isOutside) return { refused: hole };
        put("", hole.end - hole.start);
        text += " ".repeat(owed);
        owed = 0;
        continue;
      }
      return { refused: hole };
    }
    const { value, length } = unescaped(file, at, end);
    const rest = file.startsWith('"""', at) ? '"""' : value;
    if (state === "code") {
      if (owed > 0 && length === 1 && /[\s{}()]/.test(value)) {
        text += " ".repeat(owed);
        owed = 0;
      }
      if (value === "#") state = "comment";
      else if (rest === '"""') state = "block";
      else if (value === '"') state = "string";
      else if (value === "{" || value === "(") depth++;
      else if (value === "}" || value === ")") depth--;
      if (value === "}" && depth === 0) isBetween = true;
      else if (value.trim() !== "" && value !== "#") isBetween = false;
    } else if (state === "comment") {
      if (value.includes("\n")) state = "code";
    } else if (state === "string") {
      if (value === "\\") {
        put(value, length);
        const next = unescaped(file, at, end);
        put(next.value, next.length);
        continue;
      }
      if (value === '"' || value.includes("\n")) state = "code";
    } else if (rest === '"""') state = "code";
    if (rest === '"""') put('"""', 3);
    else put(value, length);
  }
  return { text };
}

/** Whether what follows an interpolation begins a definition, or is another interpolation, or nothing. */
function endsDefinition(rest: string): boolean {
  return /^(?:\s|#[^\n]*(?:\n|$))*(?:$|\$\{|\{|(?:query|mutation|subscription|fragment|extend|schema|type|interface|union|enum|input|scalar|directive)\b|""")/.test(
    rest,
  );
}

const simpleEscapes: Readonly<Record<string, string>> = {
  n: "\n",
  r: "\r",
  t: "\t",
  b: "\b",
  f: "\f",
  v: "\v",
  "0": "\0",
};

/** The character at an offset of a literal (ECMAScript, section 12.9.4), and how much of the file spells it. */
function unescaped(file: string, at: number, end: number): { value: string; length: number } {
  const char = file.charAt(at);
  if (char !== "\\" || at + 1 >= end) return { value: char, length: 1 };
  const next = file.charAt(at + 1);
  const code = /^(?:u\{([0-9a-f]{1,6})\}|u([0-9a-f]{4})|x([0-9a-f]{2}))/i.exec(
    file.slice(at + 1, Math.min(end, at + 12)),
  );
  const digits = code?.[1] ?? code?.[2] ?? code?.[3];
  if (code && digits !== undefined) {
    const point = Number.parseInt(digits, 16);
    return { value: point <= 0x10ffff ? String.fromCodePoint(point) : "", length: 1 + code[0].length };
  }
  if (next === "\r" && file.charAt(at + 2) === "\n") return { value: "", length: 3 };
  if (next === "\n" || next === "\r") return { value: "", length: 2 };
  return { value: simpleEscapes[next] ?? next, length: 2 };
}
