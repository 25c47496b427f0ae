import { describe, expect, it } from "vitest";
import { fillArguments } from "../../src/core/call/fillArguments.js";
import { readArguments } from "../../src/core/call/readArguments.js";
import type { Field, Reference, Shape } from "../../src/core/contract/model.js";

const of = (shape: Shape, nullable = false): Reference => ({ shape, nullable });
const text = of({ kind: "text" });
const field = (name: string, type: Reference, required = false): Field => ({
  name,
  type,
  required,
  place: { document: "", pointer: "" },
});
const line = of({ kind: "record", fields: [field("text", text, true), field("count", of({ kind: "integer" }))] });
const types = new Map([
  [
    "Order",
    {
      shape: of({
        kind: "record",
        fields: [
          field("lines", of({ kind: "list", item: line }), true),
          field("note", of({ kind: "text" }, true)),
          field("to", line, true),
        ],
      }).shape,
    },
  ],
]);
const taken = [
  { name: "photo", type: of({ kind: "bytes" }), required: false },
  { name: "body", type: of({ kind: "named", key: "Order" }), required: true },
  { name: "tags", type: of({ kind: "list", item: text }), required: false },
  { name: "size", type: of({ kind: "number" }), required: true },
  { name: "open", type: of({ kind: "boolean" }), required: false },
  { name: "any", type: of({ kind: "any" }), required: false },
  { name: "by", type: of({ kind: "map", value: of({ kind: "integer" }) }), required: false },
];
const read = (...written: string[]) =>
  readArguments(
    written.map((each) => ({ path: each.slice(0, each.indexOf("=")), value: each.slice(each.indexOf("=") + 1) })),
    taken,
    { types, ...files },
  );
const files = {
  fileOf: (path: string) => (path === "photo.png" ? new File(["png"], path) : undefined),
  textOf: (path: string) => (path === "by.json" ? '{"x": 7}' : undefined),
};

const missing = (path: string) => ({
  why: `refers to the file \`${path}\`, which cannot be read`,
  hint: "Name it from this folder: @photo.png.",
});

describe("arguments written as strings", () => {
  it("are read from a file if bytes or JSON are expected, and only then", async () => {
    const { values, faults } = read("photo=@photo.png", "by=@by.json", "tags=@everyone,b", "body.note=@you");
    expect(faults).toEqual([]);
    const { photo, by, body, tags } = values as { photo: File; by: unknown; body: { note: string }; tags: unknown };
    expect([photo.name, await photo.text(), by, body.note]).toEqual(["photo.png", "png", { x: 7 }, "@you"]);
    expect(tags).toEqual(["@everyone", "b"]);
    const [plain] = [read("photo=@@home").values["photo"] as Blob];
    expect(await plain.text()).toBe("@home");
    expect(read("photo=@none.png").faults).toEqual([{ path: "photo", ...missing("none.png") }]);
  });

  it("get the types of the call's parameters, also deep inside objects and lists", () => {
    const { values, faults } = read(
      "body.lines[0].text=a=b",
      "body.lines[0].count=2",
      "body.lines[].text=c",
      "body.note=null",
      "tags=a,b",
      "size=-1.5e3",
      "open=true",
      "any=[1]",
      "by.x=4",
    );
    expect(faults).toEqual([]);
    expect(JSON.parse(JSON.stringify(values))).toEqual({
      body: { lines: [{ text: "a=b", count: 2 }, { text: "c" }], note: null },
      tags: ["a", "b"],
      size: -1500,
      open: true,
      any: [1],
      by: { x: 4 },
    });
  });

  it.each([
    ["size=1.2.3", "size", "must be a number"],
    ["size=0x10", "size", "must be a number"],
    ["body.lines[0].count=1.5", "body.lines[0].count", "must be an integer"],
    ["open=yes", "open", "must be true or false"],
    ["body.lnes=1", "body.lnes", "has no field `lnes`"],
    ["tags.x=1", "tags.x", "which has no `x`"],
    ["size[0]=1", "size[0]", "is not a list"],
    ["body={", "body", "as JSON"],
    ["sise=1", "sise", "is not an argument"],
  ])("are reported if they are not valid: %s", (written, path, why) => {
    const { faults } = read(written);
    expect(faults).toHaveLength(1);
    expect([faults[0]?.path, faults[0]?.why.includes(why)]).toEqual([path, true]);
  });

  it("never reach a prototype", () => {
    const { values } = read("by.__proto__=1", "any.__proto__.evil=1", "by.constructor=2");
    expect(({} as { evil?: unknown }).evil).toBeUndefined();
    expect(Object.keys(values["by"] as object)).toEqual(["__proto__", "constructor"]);
  });

  it("get samples only if something required is missing", () => {
    const { values } = read("body.to.count=1");
    const filled = fillArguments(values, taken, {
      types,
      sampleOf: (name) => (name === "body" ? { lines: [], to: { text: "made", count: 9 } } : 7),
    });
    expect(JSON.parse(JSON.stringify(filled.values))).toEqual({
      body: { to: { count: 1, text: "made" }, lines: [] },
      size: 7,
    });
    expect(filled.missing).toEqual(["body.lines", "body.to.text", "size"]);
  });
});
