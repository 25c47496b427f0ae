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

describe("every error in every document, with its location and a fix", () => {
  it("five errors in four files give five problems", () => {
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

  it("the new name of a field that got a longer name is suggested", () => {
    const { problems } = readQueries("type Query { berthCode: Int eta: Int }", "query A { berth }");
    expect(problems[0]?.hint).toBe("Did you mean `berthCode`?");
  });

  it("a syntax error in one file does not hide the others", () => {
    const found = told("query A { boat(id: ", "query B { boats { nope } }");
    expect(found.map(([code]) => code).sort()).toEqual(["query.invalid", "query.syntax"]);
  });

  it("a bracket that is never closed is found, whatever strings and comments contain", () => {
    expect(told('query A {\n  boat(id: "}") { # }\n    name\n  }')).toEqual([
      ["query.syntax", "The query document cannot be read: this `{` is never closed.", undefined, "q0.graphql:1:9"],
    ]);
    expect(told("query A { boat(id: ")[0]?.slice(1)).toEqual([
      "The query document cannot be read: this `(` is never closed.",
      undefined,
      "q0.graphql:1:15",
    ]);
  });

  it("an anonymous operation gets a suggested name from its file, or from its first field", () => {
    const { problems } = readQueries(fleetSchema, "{ boats { id } }");
    expect(problems).toMatchObject([{ code: "query.anonymous", hint: "Write `query Q0`." }]);
  });

  it("a duplicate name is reported with both locations, for operations and fragments", () => {
    expect(told("query A { boats { id } }", "\nquery A { boats { name } }")).toEqual([
      ["query.duplicate", "Two operations are named `A`.", "Rename one of them.", "q0.graphql:1:7", "q1.graphql:2:7"],
    ]);
    const fragments = told("query A { boat(id: 1) { ...F } } fragment F on Boat { id }", "fragment F on Boat { name }");
    expect(fragments.map(([code, message]) => [code, message])).toEqual([
      ["query.duplicate", "Two fragments are named `F`."],
    ]);
  });

  it("an unused fragment is a warning, and nothing is left out", () => {
    const reading = readQueries(fleetSchema, "fragment F on Boat { id } query A { boats { id } }");
    expect(reading.problems).toMatchObject([{ code: "query.unused", level: "warning" }]);
    expect(reading.operations).toHaveLength(1);
  });

  it("a schema definition among query documents is refused", () => {
    expect(told("type X { a: Int } query A { boats { id } }")[0]?.[0]).toBe("query.invalid");
  });

  it("leaves out definitions with an error and those that depend on them, and keeps the rest", () => {
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

  it("fragments that spread each other are an error", () => {
    const [first] = told("query A { boat(id: 1) { ...F } } fragment F on Boat { ...G } fragment G on Boat { ...F }");
    expect(first?.[1]).toBe("Fragments spread each other in a cycle: `F` -> `G` -> `F`.");
  });

  it("an empty document is valid, and one of only comments too", () => {
    expect(told("", "# only a comment")).toEqual([]);
  });

  it("an error inside a fragment names the operations that send it, and the fragments in between", () => {
    const { problems } = readQueries(
      fleetSchema,
      "query A { boats { ...F } } query B { boats { ...G } }",
      "fragment F on Boat { id ...G }",
      "fragment G on Boat { nope }",
    );
    expect(problems.map(({ why }) => why)).toEqual(["`A` sends it, through the fragment `F`, then `G`, and one more."]);
    const { problems: far } = readQueries(
      fleetSchema,
      "query A { boats { ...F } } fragment F on Boat { id ...G } fragment G on Boat { mate { ...H } } fragment H on Boat { nope }",
    );
    expect(far[0]?.why).toBe("`A` sends it, through the fragment `F`, then `G`, then `H`.");
  });

  it("every cycle of fragments is reported once", () => {
    const found = told(
      "query A { boats { ...F ...Own } }",
      "fragment F on Boat { ...G } fragment G on Boat { mate { ...F } }",
      "fragment Own on Boat { mate { ...Own } }",
    );
    expect(found.map(([code, message]) => [code, message])).toEqual([
      ["query.cycle", "Fragments spread each other in a cycle: `F` -> `G` -> `F`."],
      ["query.cycle", "The fragment `Own` spreads itself."],
    ]);
  });

  it("a deprecated field is one warning with all its locations and the schema's reason", () => {
    const schema = `enum E { A @deprecated(reason: "Say B.") B } type Query { old: Int @deprecated new(way: Int @deprecated(reason: "Gone soon"), e: E): Int }`;
    const { problems } = readQueries(schema, "query A { old new(way: 1) }", "query B { old new(e: A) }");
    expect(problems.map(({ level, message, why, places }) => [level, message, why, places.length])).toEqual([
      ["warning", "The field `Query.old` is deprecated.", undefined, 2],
      ["warning", "Field `Query.new` argument `way` is deprecated.", "The schema says: Gone soon.", 1],
      ["warning", "The enum value `E.A` is deprecated.", "The schema says: Say B.", 1],
    ]);
  });

  it.each(["", "directive @defer on FRAGMENT_SPREAD | INLINE_FRAGMENT directive @stream on FIELD"])(
    "responses in parts are not supported, whether or not the schema declares the directives",
    (directives) => {
      const { problems, operations } = readQueries(
        `${directives} ${fleetSchema}`,
        "query A { boats { ... @defer { id } } }",
        "query B { boats @stream { id } }",
        "query C { boats { id } }",
      );
      expect(problems.map(({ code }) => code)).toEqual(["query.incremental", "query.incremental"]);
      expect(operations.map(({ name }) => name)).toEqual(["C"]);
    },
  );
});
