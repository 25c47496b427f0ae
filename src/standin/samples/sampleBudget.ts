/** The largest number of values in a sample: a contract may require a list of a billion. */
const mostValues = 20_000;
/** The number of characters that count as one value. */
const charactersOfValue = 50;
/** The largest number of characters in a string. */
export const mostCharacters = 100_000;

/** The remaining size of a sample. */
export class SampleBudget {
  private left: number;

  constructor(private readonly given = mostValues) {
    this.left = given;
  }

  get isSpent(): boolean {
    return this.left <= 0;
  }

  /** Uses one value; false if none is left. */
  take(): boolean {
    this.left--;
    return this.left >= 0;
  }

  takeText(text: string): void {
    this.left -= Math.floor(text.length / charactersOfValue);
  }

  /** Lends half of the rest, so that values after a long list get space too. */
  lend(): SampleBudget {
    return new SampleBudget(Math.ceil(this.left / 2));
  }

  /** Subtracts what was used of a loan. */
  settle(loan: SampleBudget): void {
    this.left -= loan.given - Math.max(0, loan.left);
  }
}
