import type { Reference } from "../../core/contract/model.js";
import { isData } from "../../core/text/parseData.js";
import type { Deed } from "../deeds.js";
import { put, remove, type Facts, type Shelf, type Shelves } from "../shelves.js";

/**
 * Makes up an item of a type that contains the known values.
 *
 * @param isLater whether there are others before it, which have the contract's examples; "as sent": no value is made
 * up that could have been sent
 */
export type MakeUp = (
  type: Reference,
  name: string,
  facts: Facts,
  isLater: "no" | "yes" | "as sent",
  seed: readonly unknown[],
) => unknown;

/** The action, and its items. */
export interface Doing {
  /** The path of the collection, or of a single item at its path. */
  readonly shelf: string;
  readonly id: string | undefined;
  /** The name of the id in the path. */
  readonly idName: string | undefined;
  readonly body: Facts;
  readonly type: Reference | undefined;
  readonly seed: readonly unknown[];
  /** The number of items in a collection at the start. */
  readonly count: number;
  /** The filters of a list, as in the query. */
  readonly filters: readonly (readonly [string, string])[];
}

export type Done =
  | { readonly kind: "thing"; readonly facts: Facts; readonly id: string }
  | { readonly kind: "list"; readonly things: readonly Facts[] }
  | { readonly kind: "gone" };

const alone = "";
const madeForFilter = 2;

/** The items of a REST contract: made up at the start, then as requests leave them. */
export class RestThings {
  constructor(
    private readonly shelves: Shelves,
    private readonly makeUp: MakeUp,
  ) {}

  /** Runs the action; undefined if such items are unknown, and any response is valid. */
  act(kind: Deed["kind"], doing: Doing): Done | undefined {
    if (!doing.type) return kind === "remove" ? this.remove(doing) : undefined;
    switch (kind) {
      case "list":
        return this.list(doing, doing.type);
      case "create":
        return this.create(doing, doing.type);
      case "fetch":
        return this.fetch(doing, doing.type);
      case "change":
        return this.change(doing, doing.type);
      case "remove":
        return this.remove(doing);
    }
  }

  private list(doing: Doing, type: Reference): Done {
    const shelf = this.filled(doing, type);
    const asked = [...shelf.things.values()];
    const wanted = doing.filters.filter(([name]) => asked.some((facts) => isPlain(facts[name])));
    const matching = (): Facts[] =>
      [...shelf.things.values()].filter((facts) =>
        byName(wanted).every(([name, values]) => !Object.hasOwn(facts, name) || values.includes(String(facts[name]))),
      );
    const found = matching();
    if (found.length > 0 || wanted.length === 0) return { kind: "list", things: found };
    // No item has such a value by chance. A list that is filtered by it should show some.
    const known = Object.fromEntries(byName(wanted).map(([name, [value]]) => [name, asLike(asked, name, value ?? "")]));
    for (let more = 0; more < madeForFilter; more++)
      this.make(doing, type, { shelf, known, isLater: "yes", seed: [doing.filters, more] });
    return { kind: "list", things: matching() };
  }

  private create(doing: Doing, type: Reference): Done {
    const shelf = this.filled(doing, type);
    return this.make(doing, type, { shelf, known: doing.body, isLater: "as sent", seed: [doing.body, shelf.made++] });
  }

  private fetch(doing: Doing, type: Reference): Done {
    const id = doing.id ?? alone;
    const shelf = doing.id === undefined ? this.shelves.at(doing.shelf) : this.filled(doing, type);
    if (shelf.removed.has(id)) return { kind: "gone" };
    const known = shelf.things.get(id);
    if (known) return { kind: "thing", facts: known, id };
    const facts = this.madeUp(doing, type, {
      known: idFacts(doing),
      isLater: shelf.things.size > 0 ? "yes" : "no",
      more: [doing.shelf, id],
    });
    if (!facts) return { kind: "thing", facts: {}, id };
    put(shelf, id, { ...facts, ...fieldsOf(facts, idFacts(doing)) });
    return { kind: "thing", facts, id };
  }

  private change(doing: Doing, type: Reference): Done {
    const before = this.fetch(doing, type);
    if (before.kind !== "thing") return before;
    const facts = { ...before.facts, ...doing.body, ...fieldsOf(before.facts, idFacts(doing)) };
    put(this.shelves.at(doing.shelf), before.id, facts);
    return { kind: "thing", facts, id: before.id };
  }

  private remove(doing: Doing): Done | undefined {
    const id = doing.id ?? alone;
    const shelf = this.shelves.at(doing.shelf);
    if (shelf.removed.has(id)) return { kind: "gone" };
    const before = doing.type ? this.fetch(doing, doing.type) : undefined;
    remove(shelf, id);
    return before ?? { kind: "thing", facts: {}, id };
  }

  /** A shelf with the first items of its collection. */
  private filled(doing: Doing, type: Reference): Shelf {
    const shelf = this.shelves.at(doing.shelf);
    if (shelf.isFilled) return shelf;
    shelf.isFilled = true;
    const asked = [...shelf.things];
    shelf.things.clear();
    for (let at = 0; at < doing.count; at++) {
      const facts = this.madeUp(doing, type, {
        known: {},
        isLater: at > 0 ? "yes" : "no",
        more: [doing.shelf, "thing", at],
      });
      const id = facts && idOf(facts, doing.idName);
      if (facts && id !== undefined && !shelf.removed.has(id)) put(shelf, id, facts);
    }
    for (const [id, facts] of asked) put(shelf, id, facts);
    return shelf;
  }

  private make(
    doing: Doing,
    type: Reference,
    {
      shelf,
      known,
      isLater,
      seed,
    }: {
      readonly shelf: Shelf;
      readonly known: Facts;
      readonly isLater: "yes" | "as sent";
      readonly seed: readonly unknown[];
    },
  ): Done & { kind: "thing" } {
    const facts = this.madeUp(doing, type, { known, isLater, more: [doing.shelf, "made", ...seed] }) ?? known;
    const whole = { ...facts, ...fieldsOf(facts, known) };
    const id = idOf(whole, doing.idName) ?? `made-${String(shelf.made)}`;
    put(shelf, id, whole);
    return { kind: "thing", facts: whole, id };
  }

  private madeUp(
    { seed }: Doing,
    type: Reference,
    {
      known,
      isLater,
      more,
    }: { readonly known: Facts; readonly isLater: "no" | "yes" | "as sent"; readonly more: readonly unknown[] },
  ): Facts | undefined {
    const made = this.makeUp(type, "", known, isLater, [...seed, ...more]);
    return isData(made) ? made : undefined;
  }
}

/** The values from an id in the path: under its own name, and as `id`. */
function idFacts({ id, idName }: Doing): Facts {
  return id === undefined || idName === undefined ? {} : { [idName]: id, id };
}

/** The given values of an item's fields, converted to the fields' types. */
function fieldsOf(facts: Facts, told: Facts): Facts {
  const known = Object.entries(told).filter(([name]) => Object.hasOwn(facts, name));
  return Object.fromEntries(
    known.map(([name, value]) => [
      name,
      typeof facts[name] === "number" && typeof value === "string" ? Number(value) : value,
    ]),
  );
}

/** The id of an item: the field with the path's name for it, `id`, or its first field with a name like an id. */
function idOf(facts: Facts, idName: string | undefined): string | undefined {
  const names = Object.keys(facts);
  const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, "");
  const found =
    names.find((name) => name === idName) ??
    names.find((name) => name === "id") ??
    names.find((name) => idName !== undefined && plain(name) === plain(idName)) ??
    names.find((name) => idName !== undefined && plain(idName).endsWith(plain(name)) && isPlain(facts[name])) ??
    names.find((name) => /(^|[a-z_])(id|code|key|number|slug)$/i.test(name) && isPlain(facts[name]));
  const value = found === undefined ? undefined : facts[found];
  return isPlain(value) ? String(value) : undefined;
}

function isPlain(value: unknown): boolean {
  return ["string", "number", "boolean"].includes(typeof value);
}

function byName(pairs: readonly (readonly [string, string])[]): [string, string[]][] {
  const found = new Map<string, string[]>();
  for (const [name, value] of pairs) found.set(name, [...(found.get(name) ?? []), ...value.split(",")]);
  return [...found];
}

/** A text from a query, converted to the type of the items' field. */
function asLike(things: readonly Facts[], name: string, text: string): unknown {
  const [like] = things.map((facts) => facts[name]).filter((value) => value !== undefined && value !== null);
  return typeof like === "number" ? Number(text) : typeof like === "boolean" ? text === "true" : text;
}
