import { describe, expect, it } from "vitest";
import { findPosition } from "../../../src/core/problem/findPosition.js";
import { fleetSchema, readQueries } from "../../support/readGraphql.js";

const told = (...documents: string[]) =>
  readQueries(fleetSchema, ...documents).problems.map(({ code, message, hint, places }) => {
    const where = places.map((place) => {
      const { line, column } = findPosition(place, documents[Number(/\d+/.exec(place.document)?.[0])] ?? "");
      return `${place.document}:${String(line)}:${String(column)}`;
    });
    return [code, message, hint, ...where];
  });

describe("every error of every document, with its place and a way out", () => {
  it("five mistakes in four files are five findings", () => {
    const found = told(
      "query A { boat(id: 1) { nam } }",
      "query B($x: Int) {\n  boat(id: $x) { id }\n  boats(frst: 1) { id }\n}",
      "query C { boat { id } }",
      "fragment F on Bot { id } query D { boat(id: 1) { ...F } }",
    );
    expect(found.map(([code]) => code)).toEqual([
      "query.invalid",
      "query.invalid",
      "query.invalid",
      "query.invalid",
      "query.invalid",
    ]);
    expect(found[0]).toEqual([
      "query.invalid",
      "Cannot query field `nam` on type `Boat`.",
      "Did you mean `name`?",
      "q0.graphql:1:25",
    ]);
    expect(found.flat()).toContain("q1.graphql:3:9");
    expect(found.flat()).toContain("Did you mean `first`?");
    expect(found.flat()).toContain("q2.graphql:1:11");
    expect(found.flat()).toContain("q3.graphql:1:15");
  });

  it("a field that got a longer name is proposed", () => {
    const { problems } = readQueries("type Query { berthCode: Int eta: Int }", "query A { berth }");
    expect(problems[0]?.hint).toBe("Did you mean `berthCode`?");
  });

  it("a syntax error in one file does not hide the others", () => {
    const found = told("query A { boat(id: ", "query B { boats { nope } }");
    expect(found.map(([code]) => code).sort()).toEqual(["query.invalid", "query.syntax"]);
  });

  it("an anonymous operation gets a proposed name: its file's, else its first field's", () => {
    const { problems } = readQueries(fleetSchema, "{ boats { id } }");
    expect(problems).toMatchObject([{ code: "query.anonymous", hint: "Write `query Q0`." }]);
  });

  it("a name used twice tells both places, for operations and fragments", () => {
    expect(told("query A { boats { id } }", "\nquery A { boats { name } }")).toEqual([
      ["query.duplicate", "Two operations are named `A`.", "Rename one of them.", "q0.graphql:1:7", "q1.graphql:2:7"],
    ]);
    const fragments = told("query A { boat(id: 1) { ...F } } fragment F on Boat { id }", "fragment F on Boat { name }");
    expect(fragments.map(([code, message]) => [code, message])).toEqual([
      ["query.duplicate", "Two fragments are named `F`."],
    ]);
  });

  it("a fragment nobody spreads is a warning, and does not leave anything out", () => {
    const reading = readQueries(fleetSchema, "fragment F on Boat { id } query A { boats { id } }");
    expect(reading.problems).toMatchObject([{ code: "query.unused", level: "warning" }]);
    expect(reading.operations).toHaveLength(1);
  });

  it("a schema definition among the documents is refused", () => {
    expect(told("type X { a: Int } query A { boats { id } }")[0]?.[0]).toBe("query.invalid");
  });

  it("leaves out what has an error or spreads something that has one, and keeps the rest", () => {
    const reading = readQueries(
      fleetSchema,
      "query A { boat(id: 1) { ...F } }",
      "fragment F on Boat { ...G }",
      "fragment G on Boat { nope }",
      "query B { boats { id } }",
    );
    expect(reading.operations.map((each) => each.name)).toEqual(["B"]);
    expect(reading.leftOut).toEqual(["A"]);
  });

  it("fragments that spread each other are refused", () => {
    const [first] = told("query A { boat(id: 1) { ...F } } fragment F on Boat { ...G } fragment G on Boat { ...F }");
    expect(first?.[1]).toMatch(/Cannot spread fragment/);
  });

  it("an empty document is nothing, and one of comments too", () => {
    expect(told("", "# only a comment")).toEqual([]);
  });
});
