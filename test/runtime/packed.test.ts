import { expect, it } from "vitest";
import { packed, unpacked } from "../../runtimes/typescript/wire/packed.js";

const carried = (value: unknown): unknown => unpacked(JSON.parse(JSON.stringify(packed(value))));

it("keeps everything in a response through JSON", () => {
  const answer = {
    at: new Date("2026-05-01T08:30:00.250Z"),
    never: new Date(Number.NaN),
    many: 2n ** 70n,
    less: -7n,
    chart: new Uint8Array([0, 255, 7]),
    gone: undefined,
    odd: [Number.NaN, Number.POSITIVE_INFINITY, -0, 0, 1.5, null, true, "text", undefined],
    inner: [{ at: new Date(0), of: { n: 1n } }],
  };
  expect(carried(answer)).toStrictEqual(answer);
  expect(Object.is((carried(answer) as typeof answer).odd[2], -0)).toBe(true);
});

it("does not decode values from elsewhere", () => {
  for (const value of [
    { $rhema: ["date", "2026-05-01"] },
    { $rhema: 1, other: { $rhema: ["bigint", "7"] } },
    [{ $rhema: [] }],
    JSON.parse('{"__proto__": {"a": 1}, "b": [2]}') as unknown,
  ]) {
    expect(carried(value)).toStrictEqual(value);
    expect(Object.getPrototypeOf(carried(value))).toBe(Object.getPrototypeOf(value));
  }
});

it("refuses values that only the app can serialize", () => {
  class Tide {
    readonly high = true;
  }
  expect(() => packed({ tide: new Tide() })).toThrow("A value of Tide cannot be packed");
  expect(() => packed(() => 1)).toThrow(TypeError);
});
