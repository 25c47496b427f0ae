import { createContext, Script } from "node:vm";

/** Milliseconds for one match. */
const longestMatch = 50;
/** Steps without a check of the clock. */
const fewSteps = 100_000;

const space = createContext({ expression: /x/, text: "" });
const script = new Script("expression.exec(text)");

/**
 * A regular expression of a contract's author. Some take extremely long, and nothing else happens in the process while
 * they run. This one stops after a moment, and afterwards at once for texts of that length.
 */
export class LimitedExpression {
  private readonly expression: RegExp;
  private readonly quantifiers: number;
  private readonly isNested: boolean;
  private slowFrom = Number.POSITIVE_INFINITY;

  /** @throws SyntaxError if the pattern is not valid */
  constructor(source: string, flags = "") {
    this.expression = new RegExp(source, flags);
    const unescaped = source.replace(/\\./gs, "_").replace(/\[[^\]]*\]/g, "_");
    this.quantifiers = (unescaped.match(/[*+?]|\{\d+(?:,\d*)?\}/g) ?? []).length;
    this.isNested = /\)[*+{]|\\[1-9k]/.test(source.replace(/\\[^1-9k]/g, "_").replace(/\[[^\]]*\]/g, "_"));
  }

  /** Returns whether a text matches; "slow" if that is unknown within the time limit. */
  test(text: string): boolean | "slow" {
    const found = this.exec(text);
    return found === "slow" ? found : found !== null;
  }

  /** Returns the match with its groups, null if there is none; "slow" if that is unknown within the time limit. */
  exec(text: string): readonly (string | undefined)[] | null | "slow" {
    // Each quantifier may read the whole text again for each position of the one before it. A nested quantifier may try
    // every way to split the text.
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

/** The engine for patterns in schemas. A text that cannot be matched in time counts as valid. */
export const patternEngine = Object.assign(
  (source: string, flags: string) => {
    const expression = new LimitedExpression(source, flags);
    return { test: (text: string): boolean => expression.test(text) !== false, toString: () => `/${source}/${flags}` };
  },
  { code: "limited" },
);
