/** One request on the stand-in server's page. */
export interface JournalEntry {
  readonly number: number;
  /** The time of the request, in milliseconds since 1970. */
  readonly at: number;
  readonly ms: number;
  readonly contract: string;
  /** The operation in the contract; undefined if there is none. */
  readonly operation: string | undefined;
  readonly method: string;
  /** Path and query, without credentials. */
  readonly path: string;
  readonly status: number;
  /** The errors of the request. */
  readonly misfits: readonly string[];
  /** The errors of the response. */
  readonly faults: readonly string[];
  /**
   * Returns the traffic in a form that can be shown. It is made on demand, because most requests are never looked at.
   */
  readonly request: () => Shown;
  readonly answer: () => Shown;
}

export interface Shown {
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

const kept = 200;

/** The last requests, and the listeners for new ones. */
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

  /** Tells the listeners that other contracts are served. */
  renew(): void {
    for (const listener of this.listeners) listener(undefined);
  }

  /**
   * Adds a listener.
   *
   * @param listener receives each new entry, and undefined when other contracts are served
   * @returns a function that removes it
   */
  listen(listener: (entry: JournalEntry | undefined) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
}
