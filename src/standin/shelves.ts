/** The known values of one item, by field. */
export type Facts = Readonly<Record<string, unknown>>;

/** The items of one collection, in order of creation. */
export interface Shelf {
  readonly things: Map<string, Facts>;
  /** The ids of removed items. Requests for them get "not found". */
  readonly removed: Set<string>;
  /** Whether made-up items were added. */
  isFilled: boolean;
  /** The number of items that were created here, so that each gets another id. */
  made: number;
}

/** The largest number of items in one collection. The oldest are dropped first. */
const mostThings = 5000;
const mostShelves = 10_000;

/** The items that were created, changed and removed while a stand-in server runs, by collection. */
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

/**
 * Adds an item to a shelf, or changes it.
 *
 * @param facts the new values
 */
export function put(shelf: Shelf, id: string, facts: Facts): void {
  shelf.removed.delete(id);
  shelf.things.set(id, facts);
  const [oldest] = shelf.things.keys();
  if (shelf.things.size > mostThings && oldest !== undefined) shelf.things.delete(oldest);
}

/** Removes an item from a shelf, and remembers that. */
export function remove(shelf: Shelf, id: string): void {
  shelf.things.delete(id);
  shelf.removed.add(id);
  const [oldest] = shelf.removed;
  if (shelf.removed.size > mostThings && oldest !== undefined) shelf.removed.delete(oldest);
}
