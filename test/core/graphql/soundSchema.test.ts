import { lexicographicSortSchema, printSchema, validateSchema } from "graphql";
import { describe, expect, it } from "vitest";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";

const read = (...texts: string[]) =>
  readGraphqlContract(
    "fleet",
    texts.map((text, at) => ({ document: `s${String(at)}.graphql`, text })),
  );
const query = "type Query { ok: Int }";
/** The skipped parts with their reasons, and the rest as text. */
function rest(text: string): { aside: string[]; left: string } {
  const { schema, contract } = read(`${query}\n${text}`);
  if (!schema || !contract) throw new Error("nothing is left");
  expect(validateSchema(schema)).toEqual([]);
  const left = printSchema(lexicographicSortSchema(schema)).replace(/\s+/g, " ").trim();
  return { aside: contract.setAside.map(({ what, why }) => `${what}: ${why}`), left };
}

describe("the valid part of a broken schema is read, and the rest is skipped with a reason", () => {
  it.each<[name: string, text: string, aside: string[], left: RegExp]>([
    [
      "a field defined twice, and differently",
      "type Boat { id: ID name: Int name: String }",
      ["Boat.name: it is defined twice, and differently"],
      /type Boat \{ id: ID \}/,
    ],
    ["a field defined twice alike", "type Boat { id: ID id: ID }", [], /type Boat \{ id: ID \}/],
    [
      "a field whose type does not exist",
      "type Boat { id: ID crew: [Person!]! }",
      ["Boat.crew: there is no type `Person`"],
      /type Boat \{ id: ID \}/,
    ],
    [
      "what depends on what is gone goes too",
      "type A { b: B } type B { c: C } type C { d: Nope } union U = A | B type D { u: U ok: Int }",
      [
        "C.d: there is no type `Nope`",
        "C: it has no field left",
        "B.c: there is no type `C`",
        "B: it has no field left",
        "A.b: there is no type `B`",
        "A: it has no field left",
        "A in U: there is no such type",
        "B in U: there is no such type",
        "U: it has no member left",
        "D.u: there is no type `U`",
      ],
      /type D \{ ok: Int \}/,
    ],
    [
      "an interface not satisfied",
      "interface Node { id: ID! } type Boat implements Node { name: String }",
      ["Boat as Node: it has no field `id`"],
      /type Boat \{ name: String \}/,
    ],
    [
      "an interface's field with another type",
      "interface Node { id: ID! } type Boat implements Node { id: ID }",
      ["Boat as Node: its `id` has another type than the interface's"],
      /type Boat \{ id: ID \}/,
    ],
    [
      "an interface's argument left out, and one added that is required",
      "interface Has { a(x: Int): Int } type A implements Has { a: Int } type B implements Has { a(x: Int, y: Int!): Int }",
      [
        "A as Has: its `a` lacks the argument `x` of the interface's",
        "B as Has: its `a` requires `y`, which the interface's does not",
      ],
      /type A \{/,
    ],
    [
      "an interface implemented without those it implements",
      "interface A { x: Int } interface B implements A { x: Int } type C implements B { x: Int }",
      ["C as B: it does not implement `A` too"],
      /type C \{ x: Int \}/,
    ],
    [
      "an input type in an answer and an object in an argument",
      "input I { x: Int } type Boat { id(by: Boat): ID i: I } extend type Query { must(boat: Boat!): Int }",
      [
        "Query.must: its argument `boat` is required, and `Boat` is an object, which cannot be an argument",
        "Boat.id(by:): `Boat` is an object, which cannot be an argument",
        "Boat.i: `I` is an input type, which cannot be in a response",
      ],
      /type Boat \{ id: ID \}/,
    ],
    [
      "an input type whose required field has no type",
      "input I { x: Nope! } input J { i: I y: Int } extend type Query { a(i: I, j: J): Int }",
      [
        "I: its field `x` is required, and there is no type `Nope`",
        "J.i: there is no type `I`",
        "Query.a(i:): there is no type `I`",
      ],
      /input J \{ y: Int \}/,
    ],
    [
      "input types that require each other",
      "input A { b: B! ok: Int } input B { a: A! ok: Int }",
      ["A.b: cannot reference Input Object `A` within itself through a series of non-null fields: `b.a`"],
      /input A \{ ok: Int \} input B \{ a: A! ok: Int \}/,
    ],
    [
      "a union of what is no object",
      "enum E { A } type T { x: Int } union U = E | T",
      ["E in U: it is an enum, but a union consists of objects"],
      /union U = T/,
    ],
    [
      "an extension of another kind, a second definition, a reserved name, and a query in a schema",
      "type T { x: Int } extend input T { y: Int } enum T { Z } type __X { a: Int } query Q { ok }",
      [
        "another T: `T` is defined as an object before",
        "__X: its name is reserved by GraphQL",
        "the query Q: it belongs in a query document, but this is a schema",
        "an extension of T: `T` is an object, and this extends an input type",
      ],
      /type T \{ x: Int \}/,
    ],
    [
      "a root that does not exist",
      "schema { query: Query mutation: Change }",
      ["every mutation: the schema names `Change`, and there is no such type"],
      /type Query \{ ok: Int \}/,
    ],
    [
      "one-of with what is required",
      "input Pick @oneOf { id: ID! name: String }",
      ["Pick.id: oneOf input field Pick.id must be nullable"],
      /input Pick @oneOf \{ name: String \}/,
    ],
  ])("%s", (_, text, aside, left) => {
    const found = rest(text);
    expect(found.aside.sort()).toEqual([...aside].sort());
    expect(found.left).toMatch(left);
  });

  it("accepts federation directives, federated types, and built-ins that are spelled out", () => {
    const { aside, left } = rest(
      `
      extend schema @link(url: "https://specs.test/federation", import: ["@key"])
      directive @tag(name: String!, of: Missing) repeatable on OBJECT
      scalar String
      type Boat @key(fields: "id") @tag { id: ID! @external @unheardOf(x: $y) name: String @deprecated(reason: 1) }
      extend type Harbour @key(fields: "code") { code: ID! boats: [Boat!]! }
      extend enum Status { AFLOAT }
    `.replace("$y", "1"),
    );
    expect(aside).toEqual([]);
    expect(left).toContain("type Harbour { boats: [Boat!]! code: ID! }");
    expect(left).toContain("enum Status { AFLOAT }");
  });

  it("merges definitions of one type from several files, and reports that", () => {
    const { problems, contract } = read("type Query { a: Int }", "scalar S type Query { a: Int b: S }", "scalar S");
    expect(contract?.setAside).toEqual([]);
    expect([...(contract?.fields.keys() ?? [])]).toEqual(["Query.a", "Query.b"]);
    expect(problems).toMatchObject([
      {
        level: "warning",
        message: "`Query` is defined more than once.",
        places: [{ document: "s1.graphql" }, { document: "s0.graphql" }],
      },
    ]);
  });

  it("reports the location of each part that it skips", () => {
    const { contract } = read(query, "type Boat {\n  id: ID\n  crew: Nope\n}");
    expect(contract?.setAside).toMatchObject([{ place: { document: "s1.graphql", offset: 29 } }]);
  });

  it("reads a schema without a query type, and refuses an empty one", () => {
    expect(read("type Boat { id: ID }").contract?.types.has("Boat")).toBe(true);
    expect(read("type Boat { id: Nope }").problems[0]?.message).toMatch(/No part of the schema can be used/);
    expect(read("# nothing").problems).toMatchObject([{ code: "graphql.schema" }]);
  });

  it("supports custom root types", () => {
    const { contract } = read(
      "schema { query: Ask subscription: Hear } type Ask { a: Int } type Hear { b: Int } type Query { c: Int }",
    );
    expect(contract?.roots).toEqual({ query: "Ask", subscription: "Hear" });
  });
});
