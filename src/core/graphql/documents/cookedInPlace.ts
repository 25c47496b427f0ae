interface Range {
  readonly start: number;
  readonly end: number;
}

/** A literal in a file, without its quotes. */
export interface Literal extends Range {
  readonly file: string;
  /** The interpolations, with their delimiters. */
  readonly holes: readonly Range[];
}

/**
 * Returns the value of a string or template literal, at its place in the file: everything before it is blank, and
 * blanks outside of GraphQL's own strings and comments replace the characters of escapes. An offset in the result is
 * therefore an offset in the file.
 *
 * An interpolation at the outermost level (a fragment that the app adds) becomes blank.
 *
 * @returns the text, or the interpolation that is inside a definition
 */
export function cookedInPlace(literal: Literal): { readonly text: string } | { readonly refused: Range } {
  return new Cooking(literal).cooked();
}

/** The token that contains a character, by GraphQL's own grammar (GraphQL specification, section 2.1). */
type State = "code" | "comment" | "string" | "block";

class Cooking {
  private text: string;
  private at: number;
  /** The number of characters that the result lags behind the file. */
  private owed = 0;
  /** The number of open braces and parentheses. */
  private depth = 0;
  private state: State = "code";
  /** Whether no definition has begun since the last one ended. */
  private isBetween = true;

  constructor(private readonly literal: Literal) {
    this.text = " ".repeat(literal.start);
    this.at = literal.start;
  }

  cooked(): { readonly text: string } | { readonly refused: Range } {
    const { file, end, holes } = this.literal;
    while (this.at < end) {
      const hole = holes.find(({ start }) => start === this.at);
      if (!hole) this.character(file.startsWith('"""', this.at));
      else if (this.takes(hole)) this.blank(hole);
      else return { refused: hole };
    }
    return { text: this.text };
  }

  /** Whether an interpolation can be left out: only between definitions can it be a definition. */
  private takes(hole: Range): boolean {
    if (this.state === "comment") return true;
    const { file, end } = this.literal;
    return this.state === "code" && this.depth === 0 && this.isBetween && endsDefinition(file.slice(hole.end, end));
  }

  private blank({ start, end }: Range): void {
    this.put("", end - start);
    this.settle();
  }

  /** Adds the blanks for the characters of escapes. */
  private settle(): void {
    this.text += " ".repeat(this.owed);
    this.owed = 0;
  }

  private put(piece: string, taken: number): void {
    this.text += piece;
    this.owed += taken - piece.length;
    this.at += taken;
  }

  private next(): { value: string; length: number } {
    return unescaped(this.literal.file, this.at, this.literal.end);
  }

  private character(isBlockQuote: boolean): void {
    const { value, length } = this.next();
    if (this.state === "string" && value === "\\") {
      this.put(value, length);
      const escaped = this.next();
      this.put(escaped.value, escaped.length);
      return;
    }
    if (this.state === "code") this.code(value, { length, isBlockQuote });
    else if (this.isEnd(value, isBlockQuote)) this.state = "code";
    if (isBlockQuote) this.put('"""', 3);
    else this.put(value, length);
  }

  /** Whether a character ends the comment or string that contains it. */
  private isEnd(value: string, isBlockQuote: boolean): boolean {
    if (this.state === "block") return isBlockQuote;
    return value.includes("\n") || (this.state === "string" && value === '"');
  }

  private code(
    value: string,
    { length, isBlockQuote }: { readonly length: number; readonly isBlockQuote: boolean },
  ): void {
    if (this.owed > 0 && length === 1 && /[\s{}()]/.test(value)) this.settle();
    if (value === "#") this.state = "comment";
    else if (isBlockQuote) this.state = "block";
    else if (value === '"') this.state = "string";
    else if (value === "{" || value === "(") this.depth++;
    else if (value === "}" || value === ")") this.depth--;
    if (value === "}" && this.depth === 0) this.isBetween = true;
    else if (value.trim() !== "" && value !== "#") this.isBetween = false;
  }
}

/** Whether the text after an interpolation begins a definition, is another interpolation, or is empty. */
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

/**
 * Returns the character at an offset of a literal (ECMAScript, section 12.9.4), and the length of its spelling in the
 * file.
 */
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
