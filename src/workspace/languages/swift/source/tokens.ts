import { endOfComment } from "../../source/endOfComment.js";
import type { Token } from "../../source/token.js";

/**
 * Returns the tokens of Swift source, the last of which is its end (The Swift Programming Language, Lexical Structure).
 * Comments nest, and a string contains the tokens of its interpolations. A name in backticks loses them, and `#if` and
 * the like are skipped. A token that is not closed ends with the source.
 */
export function tokensOf(source: string): Token[] {
  return new Tokenizer(source).all();
}

/**
 * Operators of one token, the longest first. `?`, `!`, `<` and `>` are single tokens, because types end with several of
 * them.
 */
const operators = "=== !== ... ..< &&= ||= ??= &+= &-= -> == != <= >= && || ?? += -= *= /= %= &+ &- &* << ~=".split(
  " ",
);
const name = /[\p{L}\p{Nl}_$][\p{L}\p{Nl}\p{Nd}\p{M}_]*/uy;
const number = /(?:0[xob][\da-fA-F_]+|\d[\d_]*(?:\.\d[\d_]*)?(?:[eE][+-]?\d+)?)/y;
const directive = /#(?:if|elseif|else|endif|sourceLocation|warning|error)\b/y;

class Tokenizer {
  private at = 0;
  private startsLine = true;

  constructor(private readonly source: string) {}

  /** Tokens up to the end, or inside a string up to the closing parenthesis. */
  all(isInside = false): Token[] {
    const found: Token[] = [];
    let depth = 0;
    for (;;) {
      this.skipBlank();
      const character = this.source[this.at];
      if (character === undefined) break;
      if (isInside && character === ")" && depth === 0) break;
      if (character === "(") depth++;
      if (character === ")") depth--;
      found.push(this.pattern(character, found.at(-1)) ?? this.next(character));
      this.startsLine = false;
    }
    found.push({ kind: "end", text: "", offset: this.at, end: this.at, startsLine: true });
    return found;
  }

  private skipBlank(): void {
    const { source } = this;
    for (;;) {
      const character = source[this.at];
      directive.lastIndex = this.at;
      if (character === "\n") this.startsLine = true;
      if (character === "/" && source[this.at + 1] === "/") this.at = endOr(source.indexOf("\n", this.at), source);
      else if (character === "/" && source[this.at + 1] === "*") this.skipComment();
      else if (character === "#" && (directive.test(source) || (this.at === 0 && source[1] === "!")))
        this.at = endOr(source.indexOf("\n", this.at), source);
      else if (character !== undefined && /[\s;]/.test(character)) {
        if (character === ";") this.startsLine = true;
        this.at++;
      } else return;
    }
  }

  private skipComment(): void {
    const end = endOfComment(this.source, this.at);
    if (this.source.slice(this.at, end).includes("\n")) this.startsLine = true;
    this.at = end;
  }

  /** A regular expression between slashes, which begins where a value can and ends on its line; or `#/…/#`. */
  private pattern(character: string, before: Token | undefined): Token | undefined {
    const { source, startsLine } = this;
    const offset = this.at;
    const isValueBefore =
      before !== undefined &&
      (before.kind !== "symbol" || /^[)\]}?!]$/.test(before.text)) &&
      !startsPattern.has(before.text);
    const found =
      character === "#"
        ? /^#\/[^]*?\/#/.exec(source.slice(offset, offset + longestPattern))
        : plainPattern(source, offset);
    if (!found || (character === "/" && isValueBefore)) return undefined;
    this.at = offset + found[0].length;
    return { kind: "text", text: found[0], offset, end: this.at, startsLine };
  }

  private next(character: string): Token {
    const { source, startsLine } = this;
    const offset = this.at;
    const token = (kind: Token["kind"], end: number, text = source.slice(offset, end)): Token => {
      this.at = end;
      return { kind, text, offset, end, startsLine };
    };
    if (character === "`") {
      const end = endOr(source.indexOf("`", offset + 1), source);
      return { ...token("name", end + 1, source.slice(offset + 1, end)), isQuoted: true };
    }
    if (character === '"' || /^#+"/.test(source.slice(offset, offset + 9))) return this.text(offset);
    const start = character === "#" ? offset + 1 : offset;
    name.lastIndex = start;
    const word = name.exec(source)?.[0];
    if (word !== undefined) return token("name", start + word.length);
    number.lastIndex = offset;
    const digits = number.exec(source)?.[0];
    // `$0` is a name, and `pair.0` has a number after its dot.
    if (digits !== undefined) return token("number", offset + digits.length);
    const long = operators.find((each) => source.startsWith(each, offset));
    return token("symbol", offset + (long?.length ?? 1));
  }

  private text(offset: number): Token {
    const { source, startsLine } = this;
    const hashes = /^#*/.exec(source.slice(offset, offset + 8))?.[0] ?? "";
    const isLong = source.startsWith('"""', offset + hashes.length);
    const close = `${isLong ? '"""' : '"'}${hashes}`;
    const escape = `\\${hashes}`;
    const inside: Token[][] = [];
    this.at = offset + hashes.length + (isLong ? 3 : 1);
    while (this.at < source.length && !source.startsWith(close, this.at)) {
      if (source[this.at] === "\n" && !isLong) break;
      if (!source.startsWith(escape, this.at)) this.at++;
      else if (source[this.at + escape.length] === "(") {
        this.at += escape.length + 1;
        inside.push(this.all(true));
        this.at++;
      } else this.at += escape.length + 1;
    }
    this.at = Math.min(source.length, this.at + close.length);
    this.startsLine = startsLine;
    return { kind: "text", text: source.slice(offset, this.at), offset, end: this.at, startsLine, inside };
  }
}

const longestPattern = 2000;

/** Words before a value. */
const startsPattern = new Set(["return", "in", "case", "where", "try", "await"]);

function plainPattern(source: string, offset: number): RegExpExecArray | null {
  if (source[offset] !== "/") return null;
  return /^\/(?![\s/*=])(?:\\.|\[(?:\\.|[^\]\n\\])*\]|[^/\n\\[])+\//.exec(
    source.slice(offset, offset + longestPattern),
  );
}

function endOr(found: number, source: string): number {
  return found < 0 ? source.length : found;
}
