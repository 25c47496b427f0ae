import { describe, expect, it } from "vitest";
import { connection, type ConnectionOptions } from "../../runtimes/typescript/wire/connection.js";
import {
  commonKey,
  describedChange,
  describedKey,
  describedRead,
  describedStream,
  type MaybeGiven,
} from "../../runtimes/typescript/wire/described.js";
import {
  describedLinks,
  describedPages,
  numberAfter,
  placeAfter,
} from "../../runtimes/typescript/wire/describedPages.js";
import { unsettledItems } from "../../runtimes/typescript/wire/outcome.js";
import { send } from "../../runtimes/typescript/wire/send.js";
import { request } from "../support/wireRequests.js";

const quay = (options: ConnectionOptions = {}) => connection("quay", "https://quay.test", options);
const keyOf = (args: unknown, on = quay()) => describedKey(on, { call: "find", args });
const textOf = (args: unknown) => JSON.stringify(keyOf(args)[3]);

describe("the key of a described call", () => {
  it("does not depend on the order of arguments, or on undefined ones", () => {
    expect(keyOf({ b: 1, a: { d: [2, null], c: "x" }, e: undefined })).toEqual(
      keyOf({ a: { c: "x", d: [2, null] }, b: 1 }),
    );
    expect(keyOf(undefined)).toEqual(keyOf({}));
    expect(keyOf({ a: [1, 2] })).not.toEqual(keyOf({ a: [2, 1] }));
  });

  it("is JSON, whatever the arguments are", () => {
    const moment = new Date("2026-05-01T10:00:00Z");
    class Length {
      constructor(readonly metres: number) {}
    }
    class Tide {
      toString(): string {
        return "high";
      }
    }
    const args = { at: moment, many: 2n ** 70n, none: Number.NaN, page: new URL("https://a.test/b"), tide: new Tide() };
    const [, , , part] = keyOf({
      ...args,
      length: new Length(12),
      bare: Object.assign(Object.create(null) as object, { a: 1 }),
    });
    expect(part).toEqual({
      at: "2026-05-01T10:00:00.000Z",
      bare: { a: 1 },
      length: { metres: 12 },
      many: "1180591620717411303424",
      none: "NaN",
      page: "https://a.test/b",
      tide: "high",
    });
  });

  it("supports fields with the names of inherited members", () => {
    const args = { toString: "a", toJSON: "b", constructor: "c", valueOf: 1, hasOwnProperty: true };
    expect(keyOf({ filter: args })[3]).toEqual({ filter: args });
  });

  it("distinguishes bytes and files without their content", () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    expect(textOf({ chart: bytes("north") })).toBe(textOf({ chart: bytes("north") }));
    expect(textOf({ chart: bytes("north") })).toBe(textOf({ chart: bytes("north").buffer }));
    expect(textOf({ chart: bytes("north") })).not.toBe(textOf({ chart: bytes("south") }));
    const file = new Blob(["north"]);
    expect(textOf({ file })).toBe(textOf({ file }));
    expect(textOf({ file })).not.toBe(textOf({ file: new Blob(["north"]) }));
  });

  it("distinguishes credentials without showing them", () => {
    for (const name of ["apiKey", "X-Api-Key", "accessToken", "password", "sessionCookie", "code_verifier"]) {
      expect(textOf({ inner: { [name]: "made-up-secret" } })).not.toContain("made-up");
      expect(textOf({ [name]: "made-up-secret" })).not.toBe(textOf({ [name]: "made-up-other" }));
    }
    expect(textOf({ [`token`]: { value: "made-up-secret" } })).not.toContain("made-up");
    expect(textOf({ tonnage: 3, keyword: "berth" })).toBe('{"keyword":"berth","tonnage":3}');
  });

  it("distinguishes connections by their label and their shared parameters", () => {
    const north = quay({ label: "north" });
    expect(keyOf({}, north)).not.toEqual(keyOf({}, quay({ label: "south" })));
    const tenant = (name: string) => ({ ...quay(), standing: { tenant: name } });
    expect(keyOf({}, tenant("north"))).not.toEqual(keyOf({}, tenant("south")));
    // The address in the browser differs from that on the server, and both have the same responses.
    expect(keyOf({}, quay({ baseUrl: "http://inner.test" }))).toEqual(keyOf({}));
  });

  it("starts with the keys of its contract, its connection and its call", () => {
    const north = quay({ label: "north" });
    const key = keyOf({ a: 1 }, north);
    for (const common of [commonKey("quay"), commonKey("quay", north), commonKey("quay", north, "find")])
      expect(key.slice(0, common.length)).toEqual(common);
  });
});

describe("a described call", () => {
  it("passes the signal on, and returns null for an empty response", async () => {
    const { signal } = new AbortController();
    const told: unknown[] = [];
    const ask = (options: unknown) => {
      told.push(options);
      return Promise.resolve(undefined);
    };
    const read = describedRead<undefined, Error>(quay(), { call: "find", args: {}, ask });
    const found: null = await read.queryFn({ signal });
    expect([found, told]).toEqual([null, [{ signal }]]);
    const change = describedChange<MaybeGiven<{ a: number }>, undefined, Error>((args) => ask(args));
    expect(await change.mutationFn({ a: 1 })).toBeNull();
    expect(await change.mutationFn()).toBeNull();
    expect(told.slice(1)).toEqual([{ a: 1 }, undefined]);
  });

  it("reads responses item by item, and throws the failure of an outcome", async () => {
    const failure = new Error("made up");
    // eslint-disable-next-line @typescript-eslint/require-await -- a stream of what is there already
    async function* outcomes() {
      yield { ok: true, answer: 1 } as const;
      yield { ok: false, failure } as const;
    }
    const { follow } = describedStream<number, Error>(quay(), {
      call: "watch",
      args: {},
      ask: () => unsettledItems(outcomes()),
    });
    const seen: number[] = [];
    await expect(
      (async () => {
        for await (const item of follow({})) seen.push(item);
      })(),
    ).rejects.toBe(failure);
    expect(seen).toEqual([1]);
  });
});

/** Reads pages like libraries do: page after page, until there is none. */
async function walked<Page, Place>(of: {
  readonly queryFn: (asked: { readonly pageParam: Place }) => Promise<Page>;
  readonly initialPageParam: Place;
  readonly getNextPageParam: (
    last: Page,
    pages: readonly Page[],
    place: Place,
    places: readonly Place[],
  ) => Place | undefined;
}): Promise<{ pages: Page[]; places: Place[] }> {
  const pages: Page[] = [];
  const places: Place[] = [];
  for (let place: Place | undefined = of.initialPageParam; pages.length < 10;) {
    const page = await of.queryFn({ pageParam: place });
    pages.push(page);
    places.push(place);
    place = of.getNextPageParam(page, pages, place, places);
    if (place === undefined) break;
  }
  return { pages, places };
}

describe("described pages", () => {
  const kept = { call: "list", args: {} };
  const boats = ["Petrel", "Tern", "Gull"];

  it("follow a cursor, and end if one repeats", async () => {
    const next: Record<string, string> = { "": "b", b: "c", c: "b" };
    const described = describedPages<{ next?: string }, string | undefined, Error>(quay(), {
      ...kept,
      first: undefined,
      ask: () => (cursor) => Promise.resolve({ next: next[cursor ?? ""] ?? "" }),
      next: (page) => page.next,
    });
    expect((await walked(described)).places).toEqual([undefined, "b", "c"]);
    expect(described.queryKey).toEqual([...describedKey(quay(), kept), "pages"]);
  });

  it("are counted in items or in pages, and end with an empty one", async () => {
    const counted = (size: number, isOffset: boolean) =>
      describedPages<string[], number, Error>(quay(), {
        ...kept,
        first: isOffset ? 0 : 1,
        ask: () => (place) => {
          const from = isOffset ? place : (place - 1) * size;
          return Promise.resolve(boats.slice(from, from + size));
        },
        next: (page, place) => (isOffset ? placeAfter(page, place) : numberAfter(page, place)),
      });
    expect((await walked(counted(2, true))).places).toEqual([0, 2, 3]);
    expect((await walked(counted(2, false))).places).toEqual([1, 2, 3]);
    expect((await walked(counted(2, false))).pages.flat()).toEqual(boats);
  });

  it("follow links, which they pass on", async () => {
    const asked: string[] = [];
    const links: Record<string, string> = {
      "": '<https://quay.test/boats?from=2>; rel="next"',
      "?from=2": '</boats?from=3&key=theirs>; rel="next"',
      "?from=3": "",
    };
    const fetch = (address: unknown) => {
      const { pathname, search } = new URL(String(address));
      asked.push(pathname + search);
      const link = links[search] ?? "";
      return Promise.resolve(new Response("[1]", { headers: { "content-type": "application/json", link } }));
    };
    const described = describedLinks<number[], ReturnType<typeof quay>, Error>(quay({ fetch }), {
      ...kept,
      ask: (options) => (connection) => send(connection, request({ path: "/boats" }), options) as Promise<number[]>,
      credentials: ["key"],
    });
    const { pages, places } = await walked(described);
    expect(asked).toEqual(["/boats", "/boats?from=2", "/boats?from=3"]);
    expect(places).toEqual([null, "from=2", "from=3&key=theirs"]);
    expect(JSON.parse(JSON.stringify(pages.map(({ page }) => page)))).toEqual([[1], [1], [1]]);
    links[""] = '<https://elsewhere.test/boats?from=2>; rel="next"';
    await expect(described.queryFn({ pageParam: null })).rejects.toMatchObject({
      status: "malformed",
      call: "quay.list",
    });
  });
});
