/** What is known of one thing: values by field. */
export type Facts = Readonly<Record<string, unknown>>;

/** The things of one collection, in the order in which they came. */
export interface Shelf {
  readonly things: Map<string, Facts>;
  /** Ids of what was removed; they are answered with "not found". */
  readonly removed: Set<string>;
  /** Made-up things were put on it. */
  isFilled: boolean;
  /** How many things were made here, so that each gets another id. */
  made: number;
}

/** Most things that one collection keeps; the oldest go first. */
const mostThings = 5000;
const mostShelves = 10_000;

/** What was created, changed and removed while a stand-in runs, by collection. */
export class Shelves {
  private readonly shelves = new Map<string, Shelf>();

  at(key: string): Shelf {
    const known = this.shelves.get(key);
    if (known) return known;
    const [oldest] = this.shelves.keys();
    if (this.shelves.size >= mostShelves && oldest !== undefined) this.shelves.delete(oldest);
    const shelf: Shelf = { things: new Map(), removed: new Set(), isFilled: false, made: 0 };
    this.shelves.set(key, shelf);
    return shelf;
  }

  clear(): void {
    this.shelves.clear();
  }
}

/** Puts a thing on a shelf, or what is new about it. */
export function put(shelf: Shelf, id: string, facts: Facts): void {
  shelf.removed.delete(id);
  shelf.things.set(id, facts);
  const [oldest] = shelf.things.keys();
  if (shelf.things.size > mostThings && oldest !== undefined) shelf.things.delete(oldest);
}

/** Removes a thing from a shelf, and remembers that it was removed. */
export function remove(shelf: Shelf, id: string): void {
  shelf.things.delete(id);
  shelf.removed.add(id);
  const [oldest] = shelf.removed;
  if (shelf.removed.size > mostThings && oldest !== undefined) shelf.removed.delete(oldest);
}
