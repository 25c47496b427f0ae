import { describe, expect, it } from "vitest";
import * as wire from "../../runtimes/typescript/wire/checks.js";

const berth = wire.checksByName({
  Berth: (of) =>
    wire.isRecord(
      { id: wire.isText, length: wire.isNumber },
      { tags: wire.isList(wire.isText), owner: wire.orNull(wire.isText), next: of("Berth") },
    ),
})("Berth");
const found = (check: wire.Check, value: unknown): string => {
  const wrong = check(value, "");
  return wrong ? `${wrong.path} ${wrong.expected}` : "fits";
};

describe("verified responses", () => {
  it.each([
    ["what fits", { id: "N-07", length: 1.5, tags: ["a"], owner: null, next: { id: "b", length: 0 } }, "fits"],
    ["a field more", { id: "N-07", length: 1, more: 1 }, "fits"],
    ["a field less", { id: "N-07" }, ' an object with the field "length"'],
    ["another type", { id: 7, length: 1 }, "/id a string"],
    ["an item of another type", { id: "a", length: 1, tags: ["a", 2] }, "/tags/1 a string"],
    ["null where none may be", { id: "a", length: null }, "/length a number"],
    ["something deep", { id: "a", length: 1, next: { id: "b", length: "x" } }, "/next/length a number"],
    ["a list for a record", [], " an object"],
    ["undefined", undefined, " an object"],
  ])("%s", (_what, value, expected) => {
    expect(found(berth, value)).toBe(expected);
  });

  it("whole numbers, also exact ones, and constants", () => {
    expect(found(wire.isInteger, 1.5)).toBe(" an integer");
    expect(found(wire.isInteger, "\u0000integer:9223372036854775807")).toBe("fits");
    expect(found(wire.isOneOf("a", 1), "b")).toBe(' "a" or 1');
    expect(found(wire.isOneOf("a", 1), 1)).toBe("fits");
  });

  it("tuples, with and without additional items", () => {
    expect(found(wire.isTuple([wire.isText, wire.isNumber], 1), ["a"])).toBe("fits");
    expect(found(wire.isTuple([wire.isText], 1), ["a", 2])).toBe("/1 absent");
    expect(found(wire.isTuple([wire.isText], 1, wire.isNumber), ["a", 2, "x"])).toBe("/2 a number");
    expect(found(wire.isTuple([wire.isText], 1), [])).toBe(" a list of 1 or more items");
  });

  it("unions report the mismatch in the closest member, or the tag", () => {
    const either = wire.isEither(wire.isNumber, wire.isRecord({ a: wire.isRecord({ b: wire.isText }) }));
    expect(found(either, { a: { b: 1 } })).toBe("/a/b a string");
    expect(found(either, "x")).toBe(" one of several types");
    const tagged = wire.isTagged("kind", { sail: wire.isRecord({ mast: wire.isNumber }) });
    expect(found(tagged, { kind: "sail", mast: "x" })).toBe("/mast a number");
    expect(found(tagged, { kind: "motor" })).toBe('/kind "sail"');
    expect(found(tagged, { kind: "constructor" })).toBe('/kind "sail"');
  });

  it("names that pointers escape, and inherited ones", () => {
    expect(found(wire.isRecord({ "a/b~c": wire.isText }), { "a/b~c": 1 })).toBe("/a~1b~0c a string");
    expect(found(wire.isRecord({ toString: wire.isText }), {})).toBe(' an object with the field "toString"');
    expect(found(wire.isRecord({}, { toString: wire.isText }), {})).toBe("fits");
    expect(found(wire.isRecord({}, {}, wire.isNumber), { constructor: "x" })).toBe("/constructor a number");
  });

  it("throw a mismatch with its path before anything is converted", () => {
    const { decode } = wire.verified(berth, { decode: () => "converted" });
    expect(decode({ id: "a", length: 1 })).toBe("converted");
    let thrown: unknown;
    try {
      decode({ id: "a", length: "x" });
    } catch (error) {
      thrown = error;
    }
    expect(thrown).toMatchObject({ path: "/length", expected: "a number", message: "/length must be a number" });
  });
});
