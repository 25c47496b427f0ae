import { describe, expect, it } from "vitest";
import { edited } from "../../runtimes/typescript/wire/edited.js";
import { unseal, type Sealed } from "../../runtimes/typescript/wire/sealed.js";

interface Berth {
  id: string;
  length: number;
  note?: string;
  occupant: { name: string; crew: number } | null;
  status: "free" | "reserved";
}

const berth: Berth = { id: "N-07", length: 11, occupant: null, status: "free" };
const page = { items: [berth, { ...berth, id: "S-01", occupant: { name: "Grey Heron", crew: 2 } }], total: 2 };

describe("an edited response", () => {
  it("has other fields, in the selected items of a list, and does not change the original", () => {
    const before = structuredClone(page);
    const made = edited(page, () => ({
      items: ({ id }) => (id === "S-01" ? { status: "reserved", note: "swept" } : undefined),
      total: (total) => total + 1,
    }));
    expect(made).toEqual({ items: [berth, { ...page.items[1], status: "reserved", note: "swept" }], total: 3 });
    expect([page, made.items[0] === page.items[0]]).toEqual([before, true]);
  });

  it("accepts whole values too, and stays the same if nothing is edited", () => {
    const made = edited(page, ({ items }) => ({
      items: items.filter(({ id }) => id !== "N-07"),
    }));
    expect(made.items.map(({ id }) => id)).toEqual(["S-01"]);
    const deeper = edited(page.items, () => ({ occupant: () => ({ crew: (crew) => crew * 2 }) }));
    expect(deeper.map(({ occupant }) => occupant?.crew)).toEqual([undefined, 4]);
    expect(edited(page.items, () => ({ occupant: null }))[1]?.occupant).toBeNull();
    expect(edited(null as Berth | null, () => ({ length: 3 }))).toBeNull();
  });

  it("keeps undefined, instances of classes, and fields of any name", () => {
    const at = new Date(0);
    const odd = JSON.parse('{ "__proto__": 1, "constructor": 2 }') as { constructor: number; ["__proto__"]: number };
    const record = { at, days: [[1, 2], [3]], odd };
    const made = edited(record, () => ({
      at: (now) => new Date(now.getTime() + 1000),
      days: (day) => day * 10,
      odd: () => ({ constructor: 3, ["__proto__"]: undefined }),
    }));
    expect([made.at.getTime(), made.days]).toEqual([1000, [[10, 20], [30]]]);
    expect(JSON.stringify(made.odd)).toBe('{"__proto__":1,"constructor":3}');
  });

  it("reaches sealed fragments, in lists too, and is read through them", () => {
    type Tile = Sealed<{
      readonly VoyageTile: { eta: string | null; vessel: Sealed<{ readonly Boat: { name: string } }> };
    }>;
    interface Answer {
      voyages: (Tile & { id: string })[];
    }
    const answer = { voyages: [{ id: "v-1", eta: null, vessel: { name: "Duckling" } }] } as unknown as Answer;
    const made = edited(answer, () => ({
      voyages: ({ id }) => (id === "v-1" ? { eta: "09:30", vessel: () => ({ name: "Small Thunder" }) } : undefined),
    }));
    const [tile] = unseal("VoyageTile", made.voyages);
    expect([tile?.eta, tile && unseal("Boat", tile.vessel).name]).toEqual(["09:30", "Small Thunder"]);
  });

  it("is typed if types contain themselves, any field, or anything", () => {
    interface Quay {
      name: string;
      parts: Quay[];
      marks: Record<string, number>;
      extra: unknown;
    }
    const quay: Quay = {
      name: "north",
      parts: [{ name: "mole", parts: [], marks: {}, extra: 1 }],
      marks: { a: 1 },
      extra: null,
    };
    const made = edited(quay, ({ name }) => ({
      parts: () => ({ name: (inner) => `${name} ${inner}`, parts: [], extra: { any: "thing" } }),
      marks: () => ({ b: 2 }),
      extra: [1],
    }));
    expect([made.parts[0]?.name, made.parts[0]?.extra, made.marks, made.extra]).toEqual([
      "north mole",
      { any: "thing" },
      { a: 1, b: 2 },
      [1],
    ]);
  });

  it("accepts nothing that the response does not have", () => {
    // @ts-expect-error -- a field that is not there
    edited(page, () => ({ price: 1 }));
    // @ts-expect-error -- a value of another kind
    edited(page, () => ({ total: "two" }));
    edited(page, () => ({
      // @ts-expect-error -- a choice that is not among those of the contract
      items: () => ({ status: "sunk" }),
    }));
    // @ts-expect-error -- a whole value that lacks something
    edited(page, () => ({ items: [{ id: "N-08" }] }));
    expect(edited(page, () => undefined)).toBe(page);
  });
});
