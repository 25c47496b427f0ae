import { describe, expect, it } from "vitest";
import { contractValidator } from "../../src/standin/samples/ajvForContract.js";

const document = (schemas: Record<string, unknown>) => ({ openapi: "3.1.0", components: { schemas } });
const place = { document: "", pointer: "/components/schemas/Order" };
const check = (schemas: Record<string, unknown>, value: unknown, coerce = false, dialect = "3.1.0") =>
  contractValidator(document(schemas), dialect, "request").check(place, value, coerce);
const line = {
  type: "object",
  required: ["text"],
  properties: { text: { type: "string" }, count: { type: "integer" } },
};
const toLine = { $ref: "#/components/schemas/Line" };

describe("references that are followed late", () => {
  it("refuse with the whole path, wherever they stand, and take what fits", () => {
    const schemas = {
      Order: {
        type: "object",
        properties: {
          lines: { type: "array", items: toLine },
          first: toLine,
          either: { oneOf: [toLine, { type: "null" }] },
        },
      },
      Line: line,
    };
    expect(check(schemas, { lines: [{ text: "a" }, { text: 5 }], first: {} })).toEqual([
      "/lines/1/text must be string",
      "/first must have required property 'text'",
    ]);
    expect(check(schemas, { lines: [{ text: "a", count: 1 }], either: null })).toEqual([]);
    expect(check(schemas, { either: { text: 1 } }).length).toBeGreaterThan(0);
  });

  it("go round in circles, change text into what is wanted, and know null in its old dress", () => {
    const tree = {
      type: "object",
      properties: { kids: { type: "array", items: { $ref: "#/components/schemas/Order" } }, name: { type: "string" } },
    };
    expect(check({ Order: tree }, { kids: [{ kids: [{ name: 1 }] }] })).toEqual(["/kids/0/kids/0/name must be string"]);
    expect(check({ Order: { $ref: "#/components/schemas/Order" } }, 1)).toEqual([]);
    expect(check({ Order: { $ref: "#/components/schemas/Size" }, Size: { type: "integer" } }, "12", true)).toEqual([]);
    expect(check({ Order: { $ref: "#/components/schemas/Size" }, Size: { type: "integer" } }, "12")).toEqual([
      "must be integer",
    ]);
    expect(
      check(
        { Order: { $ref: "#/components/schemas/Size" }, Size: { type: "integer", nullable: true } },
        null,
        false,
        "3.0.3",
      ),
    ).toEqual([]);
  });

  it("leave alone what only looks like one, and refuse nothing where they lead nowhere", () => {
    const data = { const: { $ref: "#/components/schemas/Line" } };
    expect(check({ Order: data, Line: line }, { $ref: "#/components/schemas/Line" })).toEqual([]);
    expect(check({ Order: data, Line: line }, { text: "a" })).toHaveLength(1);
    const named = { type: "object", required: ["$ref"], properties: { $ref: { type: "string" }, enum: toLine } };
    expect(check({ Order: named, Line: line }, { $ref: "x", enum: { text: 1 } })).toEqual([
      "/enum/text must be string",
    ]);
    expect(check({ Order: { $ref: "#/components/schemas/None" } }, 1)).toEqual([]);
  });

  it("are followed at once where a schema has to know what they have looked at", () => {
    const schemas = { Order: { allOf: [toLine], unevaluatedProperties: false }, Line: line };
    expect(check(schemas, { text: "a", count: 1 })).toEqual([]);
    expect(check(schemas, { text: "a", more: 1 })).toHaveLength(1);
  });

  it("do not make the first of a thousand types that lead into each other wait for all of them", () => {
    const schemas = Object.fromEntries(
      Array.from({ length: 3000 }, (_, at) => [
        at === 0 ? "Order" : `T${String(at)}`,
        {
          type: "object",
          properties: { next: { $ref: `#/components/schemas/T${String(at + 1)}` }, name: { type: "string" } },
        },
      ]),
    );
    expect(check(schemas, { name: "a", next: { next: { name: 1 } } })).toEqual(["/next/next/name must be string"]);
  });
});
