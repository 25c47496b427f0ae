import { describe, expect, it } from "vitest";
import { custom, dates, either, fields, items, positions, tagged } from "../../runtimes/typescript/wire/conversions.js";
import { bigints, exact, exactBody, integerTexts, parseExact } from "../../runtimes/typescript/wire/integers.js";
import {
  asBoolean,
  asNumber,
  asOneOf,
  asText,
  readHeader,
  readHeaders,
} from "../../runtimes/typescript/wire/headers.js";

const noon = "2026-05-01T12:00:00.000Z";
const money = custom(
  (text: string) => ({ cents: Math.round(Number(text) * 100) }),
  (own: { cents: number }) => (own.cents / 100).toFixed(2),
);

describe("conversions between JSON and the app's types", () => {
  it("of dates, in objects, lists, maps and tuples, in both directions", () => {
    const berth = fields({ freeFrom: () => dates, log: () => items(() => dates), next: () => berth });
    const sent = { id: noon, freeFrom: noon, log: [noon], next: { freeFrom: null } };
    const own = berth.decode(sent);
    expect(own).toEqual({ id: noon, freeFrom: new Date(noon), log: [new Date(noon)], next: { freeFrom: null } });
    expect(berth.encode(own)).toEqual(sent);
    expect(fields({}, () => dates, ["a"]).decode({ a: noon, b: noon })).toEqual({ a: noon, b: new Date(noon) });
    expect(positions([undefined, () => dates], () => dates).decode([noon, noon, noon])).toEqual([
      noon,
      new Date(noon),
      new Date(noon),
    ]);
  });

  it("leave values of an unexpected type unchanged", () => {
    expect(dates.decode("soon")).toBe("soon");
    expect(fields({ a: () => dates }).decode("text")).toBe("text");
    expect(items(() => dates).decode({ a: 1 })).toEqual({ a: 1 });
    expect(money.decode(null)).toBeNull();
  });

  it("of formats with the app's own types, and unions with and without tags", () => {
    expect(money.encode(money.decode("12.50"))).toBe("12.50");
    const either1 = either(
      { kind: "text", values: ["free"] },
      { kind: "text", of: () => money },
      { kind: "record", needs: ["at"], of: () => fields({ at: () => dates }) },
    );
    expect(either1.decode("free")).toBe("free");
    expect(either1.decode("1.00")).toEqual({ cents: 100 });
    expect(either1.decode({ at: noon })).toEqual({ at: new Date(noon) });
    const byKind = tagged("kind", { buoy: () => fields({ since: () => dates }) });
    expect(byKind.decode({ kind: "buoy", since: noon })).toEqual({ kind: "buoy", since: new Date(noon) });
    expect(byKind.decode({ kind: "toString", since: noon })).toEqual({ kind: "toString", since: noon });
  });

  it("of 64-bit integers keep every digit, in both directions", () => {
    const text =
      '{"id":9007199254740993,"plain":9007199254740993,"said":"9007199254740993","small":7,"float":12345678901234567.5}';
    const parsed = parseExact(text);
    const own = exact(fields({ id: () => bigints, small: () => bigints })).decode(parsed);
    expect(own).toEqual({
      id: 9007199254740993n,
      plain: 9007199254740992,
      said: "9007199254740993",
      small: 7n,
      float: 12345678901234568,
    });
    expect(exactBody(own)?.data).toBe(
      '{"id":9007199254740993,"plain":9007199254740992,"said":"9007199254740993","small":7,"float":12345678901234568}',
    );
    const asTexts = exact(fields({ id: () => integerTexts }));
    expect(asTexts.decode(parseExact('{"id":-9223372036854775808}'))).toEqual({ id: "-9223372036854775808" });
    expect(exactBody(asTexts.encode({ id: "-9223372036854775808" }))?.data).toBe('{"id":-9223372036854775808}');
  });
});

describe("response headers", () => {
  const headers = new Headers({ "x-left": "7", "x-list": "a, b", "x-odd": "many", "x-flag": "true", "x-kind": "gold" });

  it("are read with their types; invalid values are absent", () => {
    expect(readHeader(headers, "X-Left", asNumber)).toBe(7);
    expect(readHeader(headers, "X-Odd", asNumber)).toBeUndefined();
    expect(readHeader(headers, "X-Flag", asBoolean)).toBe(true);
    expect(readHeader(headers, "X-None", asText)).toBeUndefined();
    expect(readHeaders(headers, "X-List", asText)).toEqual(["a", "b"]);
    expect(readHeader(headers, "X-Kind", asOneOf("gold", "silver"))).toBe("gold");
    expect(readHeader(headers, "X-Left", asOneOf("gold", "silver"))).toBeUndefined();
  });
});
