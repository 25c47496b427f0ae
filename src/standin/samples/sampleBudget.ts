/** As many values as a sample has at most: a contract may ask for a list of a billion. */
const mostValues = 20_000;
/** Characters that count as one value. */
const charactersOfValue = 50;
/** As many characters as a text has at most. */
export const mostCharacters = 100_000;

/** What a sample may still hold. */
export class SampleBudget {
  private left: number;

  constructor(private readonly given = mostValues) {
    this.left = given;
  }

  get isSpent(): boolean {
    return this.left <= 0;
  }

  /** Takes room for a value; false when there is none. */
  take(): boolean {
    this.left--;
    return this.left >= 0;
  }

  takeText(text: string): void {
    this.left -= Math.floor(text.length / charactersOfValue);
  }

  /** Lends half of what is left, so that what comes after a long list finds room too. */
  lend(): SampleBudget {
    return new SampleBudget(Math.ceil(this.left / 2));
  }

  /** Takes what was spent of a loan. */
  settle(loan: SampleBudget): void {
    this.left -= loan.given - Math.max(0, loan.left);
  }
}
