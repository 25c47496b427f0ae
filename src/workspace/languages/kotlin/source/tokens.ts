import { endOfComment } from "../../source/endOfComment.js";
import type { Token } from "../../source/token.js";

const symbols = [
  ...[
    "===",
    "!==",
    "...",
    "?.",
    "?:",
    "::",
    "!!",
    "->",
    "..",
    "++",
    "--",
    "&&",
    "||",
    "==",
    "!=",
    "<=",
    ">=",
    "+=",
    "-=",
  ],
  ...["*=", "/=", "%=", "as?", "!in", "!is"],
];

/**
 * Returns the tokens of Kotlin source, the last of which is its end. Comments nest, and a string contains the tokens of
 * its templates. A token that is not closed ends with the source.
 */
export function tokensOf(source: string): Token[] {
  return new Tokenizer(source).all(source.length);
}

class Tokenizer {
  private at = 0;
  private startsLine = true;

  constructor(private readonly source: string) {}

  /** Tokens up to a position, or up to the brace that closes the current block. */
  all(limit: number, isTemplate = false): Token[] {
    const found: Token[] = [];
    let depth = 0;
    for (;;) {
      this.skipBlank();
      if (this.at >= limit) break;
      const character = this.source[this.at] ?? "";
      if (isTemplate && character === "}" && depth === 0) break;
      if (character === "{") depth++;
      if (character === "}") depth--;
      found.push(this.next(character));
      this.startsLine = false;
    }
    found.push({ kind: "end", text: "", offset: this.at, end: this.at, startsLine: true });
    return found;
  }

  private skipBlank(): void {
    const { source } = this;
    for (;;) {
      const character = source[this.at];
      if (character === "\n") this.startsLine = true;
      if (character === "/" && source[this.at + 1] === "/") this.at = endOr(source.indexOf("\n", this.at), source);
      else if (character === "/" && source[this.at + 1] === "*") this.skipComment();
      else if (character === "#" && this.at === 0 && source[1] === "!") this.at = endOr(source.indexOf("\n"), source);
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

  private next(character: string): Token {
    const offset = this.at;
    const token = (kind: Token["kind"], end: number, text = this.source.slice(offset, end)): Token => {
      this.at = end;
      return { kind, text, offset, end, startsLine: this.startsLine };
    };
    if (character === "`") {
      const end = endOr(this.source.indexOf("`", offset + 1), this.source);
      return token("name", end + 1, this.source.slice(offset + 1, end));
    }
    name.lastIndex = offset;
    const word = name.exec(this.source)?.[0];
    if (word !== undefined) {
      const isSafeCast = word === "as" && this.source[offset + 2] === "?";
      return isSafeCast ? token("symbol", offset + 3, "as?") : token("name", offset + word.length);
    }
    number.lastIndex = offset;
    const digits = number.exec(this.source)?.[0];
    if (digits !== undefined) return token("number", offset + digits.length);
    if (character === "'") {
      const end = /^'(?:\\u[0-9a-fA-F]{4}|\\.|[^\\'])'/.exec(this.source.slice(offset, offset + 8))?.[0].length ?? 1;
      return token("text", offset + end);
    }
    if (character === '"') return this.text(offset);
    const not = /^!(?:in|is)\b/.exec(this.source.slice(offset, offset + 4))?.[0];
    if (not !== undefined) return token("symbol", offset + not.length);
    const long = symbols.find((symbol) => this.source.startsWith(symbol, offset));
    return token("symbol", offset + (long?.length ?? 1));
  }

  private text(offset: number): Token {
    const { source, startsLine } = this;
    const isRaw = source.startsWith('"""', offset);
    const inside: Token[][] = [];
    this.at = offset + (isRaw ? 3 : 1);
    while (this.at < source.length) {
      const character = source[this.at];
      if (isRaw ? source.startsWith('"""', this.at) : character === '"' || character === "\n") break;
      if (character === "\\" && !isRaw) this.at += 2;
      else if (character === "$" && source[this.at + 1] === "{") {
        this.at += 2;
        inside.push(this.all(source.length, true));
        this.at++;
      } else if (character === "$") inside.push(...this.simpleTemplate());
      else this.at++;
    }
    this.at = Math.min(source.length, this.at + (isRaw ? 3 : 1));
    // A raw string may end with more quotes than needed.
    while (isRaw && source[this.at] === '"') this.at++;
    this.startsLine = startsLine;
    return { kind: "text", text: source.slice(offset, this.at), offset, end: this.at, startsLine, inside };
  }

  private simpleTemplate(): Token[][] {
    name.lastIndex = this.at + 1;
    const word = name.exec(this.source)?.[0];
    const offset = this.at + 1;
    this.at = offset + (word?.length ?? 0);
    if (word === undefined) return [];
    const end = { kind: "end", text: "", offset: this.at, end: this.at, startsLine: true } as const;
    return [[{ kind: "name", text: word, offset, end: this.at, startsLine: false }, end]];
  }
}

const name = /[\p{L}\p{Nl}_][\p{L}\p{Nl}\p{Nd}_]*/uy;
const number = /\d[\w]*(?:\.\d[\w]*)?(?:[eE][+-]?\d+)?[fFLuU]*/y;

function endOr(found: number, source: string): number {
  return found < 0 ? source.length : found;
}
