/** One request, as the stand-in's page shows it. */
export interface JournalEntry {
  readonly number: number;
  /** When it came, in milliseconds since 1970. */
  readonly at: number;
  readonly ms: number;
  readonly contract: string;
  /** What of the contract it was for; undefined where nothing was. */
  readonly operation: string | undefined;
  readonly method: string;
  /** Path and query, without credentials. */
  readonly path: string;
  readonly status: number;
  /** What of the request does not fit the contract. */
  readonly misfits: readonly string[];
  /** What of the answer does not fit. */
  readonly faults: readonly string[];
  /** What was sent, made showable when somebody looks: most calls nobody looks at. */
  readonly request: () => Shown;
  readonly answer: () => Shown;
}

export interface Shown {
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

const kept = 200;

/** The last calls, and whoever wants to be told of each. */
export class Journal {
  readonly entries: JournalEntry[] = [];
  private readonly listeners = new Set<(entry: JournalEntry | undefined) => void>();
  private count = 0;

  add(entry: Omit<JournalEntry, "number">): JournalEntry {
    const whole = { ...entry, number: ++this.count };
    this.entries.push(whole);
    if (this.entries.length > kept) this.entries.shift();
    for (const listener of this.listeners) listener(whole);
    return whole;
  }

  /** Tells whoever listens that what is played is another. */
  renew(): void {
    for (const listener of this.listeners) listener(undefined);
  }

  /**
   * @param listener takes each new entry, and undefined when what is played is another
   * @returns a function that ends it
   */
  listen(listener: (entry: JournalEntry | undefined) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
}
