import { createContext, Script } from "node:vm";

/** Milliseconds for one match. */
const longestMatch = 50;
/** Steps that are taken without looking at the clock. */
const fewSteps = 100_000;

const space = createContext({ expression: /x/, text: "" });
const script = new Script("expression.exec(text)");

/**
 * A regular expression of a contract's author. Some take longer than anybody waits, and while they match nothing else
 * happens in the process; this one gives up after a moment, and from then on for texts of that length at once.
 */
export class LimitedExpression {
  private readonly expression: RegExp;
  private readonly quantifiers: number;
  private readonly isNested: boolean;
  private slowFrom = Number.POSITIVE_INFINITY;

  /** @throws SyntaxError when it is none */
  constructor(source: string, flags = "") {
    this.expression = new RegExp(source, flags);
    const unescaped = source.replace(/\\./gs, "_").replace(/\[[^\]]*\]/g, "_");
    this.quantifiers = (unescaped.match(/[*+?]|\{\d+(?:,\d*)?\}/g) ?? []).length;
    this.isNested = /\)[*+{]|\\[1-9k]/.test(source.replace(/\\[^1-9k]/g, "_").replace(/\[[^\]]*\]/g, "_"));
  }

  /** Whether a text matches; "slow" when that cannot be said in time. */
  test(text: string): boolean | "slow" {
    const found = this.exec(text);
    return found === "slow" ? found : found !== null;
  }

  /** The match with its groups, null when there is none; "slow" when that cannot be said in time. */
  exec(text: string): readonly (string | undefined)[] | null | "slow" {
    // Each quantifier may look at the whole text anew for each place of the one before it; one around another may try
    // every way to cut the text.
    const steps = this.isNested ? 3 ** text.length : text.length ** Math.max(1, this.quantifiers);
    if (steps <= fewSteps) return this.expression.exec(text);
    if (text.length >= this.slowFrom) return "slow";
    try {
      Object.assign(space, { expression: this.expression, text });
      return script.runInContext(space, { timeout: longestMatch }) as RegExpExecArray | null;
    } catch (error) {
      if ((error as { code?: unknown }).code !== "ERR_SCRIPT_EXECUTION_TIMEOUT") throw error;
      this.slowFrom = Math.floor(text.length / 2);
      return "slow";
    }
  }
}

/** The engine for the patterns of schemas; what cannot be matched in time counts as fitting. */
export const patternEngine = Object.assign(
  (source: string, flags: string) => {
    const expression = new LimitedExpression(source, flags);
    return { test: (text: string): boolean => expression.test(text) !== false, toString: () => `/${source}/${flags}` };
  },
  { code: "limited" },
);
