import type { Token } from "./token.js";

const end: Token = { kind: "end", text: "", offset: 0, end: 0, startsLine: true };

/** Reads tokens one after the other. */
export class Reader {
  constructor(
    readonly tokens: readonly Token[],
    public at = 0,
    /** The end of the readable tokens. */
    private readonly limit = tokens.length,
  ) {}

  get token(): Token {
    return this.peek(0);
  }

  peek(ahead: number): Token {
    const at = this.at + ahead;
    return at < this.limit ? (this.tokens[at] ?? end) : end;
  }

  get isAtEnd(): boolean {
    return this.token.kind === "end";
  }

  next(): Token {
    const { token } = this;
    this.at++;
    return token;
  }

  /** Returns whether the next token is a symbol, or a name outside of backticks. */
  is(text: string): boolean {
    const { token } = this;
    return token.text === text && token.kind !== "text" && token.kind !== "end" && token.isQuoted !== true;
  }

  /** Skips the next token if it is this one. */
  takes(text: string): boolean {
    if (!this.is(text)) return false;
    this.at++;
    return true;
  }

  name(): Token | undefined {
    return this.token.kind === "name" ? this.next() : undefined;
  }

  /** Returns a reader of the same tokens from a position on. */
  from(at: number, limit = this.limit): Reader {
    return new Reader(this.tokens, at, limit);
  }

  /** Skips brackets with their content. Returns the positions of the content. */
  skipBrackets(): readonly [from: number, to: number] {
    const from = this.at + 1;
    const to = Math.min(closersOf(this.tokens).get(this.at) ?? this.limit, this.limit);
    this.at = Math.min(to + 1, this.limit);
    return [from, to];
  }
}

const known = new WeakMap<readonly Token[], ReadonlyMap<number, number>>();

/** The position of the closing bracket for each opening one. They are found once, because brackets nest. */
function closersOf(tokens: readonly Token[]): ReadonlyMap<number, number> {
  const found = known.get(tokens);
  if (found) return found;
  const closers = new Map<number, number>();
  const open: number[] = [];
  tokens.forEach(({ kind, text }, at) => {
    if (kind !== "symbol") return;
    if (text === "(" || text === "[" || text === "{") open.push(at);
    else if (text === ")" || text === "]" || text === "}") {
      const opened = open.pop();
      if (opened !== undefined) closers.set(opened, at);
    }
  });
  known.set(tokens, closers);
  return closers;
}
