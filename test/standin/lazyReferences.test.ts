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

describe("lazily resolved references", () => {
  it("refuse with the whole path, at any location, and accept valid values", () => {
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

  it("follow cycles, convert strings, and know nullable in OpenAPI 3.0", () => {
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

  it("ignore what only looks like one, and refuse nothing if they do not resolve", () => {
    const data = { const: { $ref: "#/components/schemas/Line" } };
    expect(check({ Order: data, Line: line }, { $ref: "#/components/schemas/Line" })).toEqual([]);
    expect(check({ Order: data, Line: line }, { text: "a" })).toHaveLength(1);
    const named = { type: "object", required: ["$ref"], properties: { $ref: { type: "string" }, enum: toLine } };
    expect(check({ Order: named, Line: line }, { $ref: "x", enum: { text: 1 } })).toEqual([
      "/enum/text must be string",
    ]);
    expect(check({ Order: { $ref: "#/components/schemas/None" } }, 1)).toEqual([]);
  });

  it("are resolved at once if a schema must know what was evaluated", () => {
    const schemas = { Order: { allOf: [toLine], unevaluatedProperties: false }, Line: line };
    expect(check(schemas, { text: "a", count: 1 })).toEqual([]);
    expect(check(schemas, { text: "a", more: 1 })).toHaveLength(1);
  });

  it("do not resolve all of a thousand connected types for the first one", () => {
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
