import { describe, expect, it } from "vitest";
import type { Reference, Shape } from "../../../src/core/contract/model.js";
import { fleetSchema, readQueries } from "../../support/readGraphql.js";

/** A shape as a short text: `{ boat?: { name: text } | null }`. */
function short({ shape, nullable }: Reference): string {
  return `${shortShape(shape)}${nullable ? " | null" : ""}`;
}

function shortShape(shape: Shape): string {
  switch (shape.kind) {
    case "record":
      return `{ ${shape.fields.map((field) => `${field.name}${field.required ? "" : "?"}: ${short(field.type)}`).join(", ")} }`;
    case "list":
      return `[${short(shape.item)}]`;
    case "union":
      return shape.members.map(short).join(" + ");
    case "literal":
      return JSON.stringify(shape.value);
    case "choice":
      return shape.values.map(({ value }) => JSON.stringify(value)).join("|");
    case "named":
      return shape.key;
    default:
      return shape.kind;
  }
}

const answerOf = (...documents: string[]) => {
  const { operations, problems } = readQueries(fleetSchema, ...documents);
  expect(problems.filter((each) => each.level === "error")).toEqual([]);
  return short(operations[0]!.answer);
};

describe("response types follow the selection exactly", () => {
  it.each([
    ["{ boat(id: 1) { id name length } }", "{ boat: { id: text, name: text, length: number | null } | null }"],
    ["{ first: boat(id: 1) { title: name } }", "{ first: { title: text } | null }"],
    ["{ boats { name } }", "{ boats: [[{ name: text }]] }"],
    ["{ boat(id: 1) { status } }", "{ boat: { status: Status } | null }"],
    ["{ boat(id: 1) { name } boat(id: 1) { length name } }", "{ boat: { name: text, length: number | null } | null }"],
    ["{ boat(id: 1) { mate { mate { name } } } }", "{ boat: { mate: { mate: { name: text } | null } | null } | null }"],
    ["{ boat(id: 1) { __typename } }", '{ boat: { __typename: "Motor"|"Sail"|"Tug" } | null }'],
  ])("%s", (selection, shape) => {
    expect(answerOf(`query Q ${selection}`)).toBe(shape);
  });

  it("fragments on object types become a tagged union; types with the same response share a member", () => {
    expect(answerOf("query Q { boat(id: 1) { name ... on Sail { mast } } }")).toBe(
      '{ boat: { __typename: "Motor"|"Tug", name: text } + { __typename: "Sail", name: text, mast: number } | null }',
    );
  });

  it("fields of an interface that every member of a union implements belong to the union", () => {
    const { operations } = readQueries(
      "interface I { id: ID! } type A implements I { id: ID! } type B implements I { id: ID! x: Int } union U = A | B type Query { u: U! }",
      "query Q { u { ... on I { id } } }",
    );
    expect(short(operations[0]!.answer)).toBe("{ u: { id: text } }");
  });

  it("the tag is always selected, also if selections with different conditions are merged", () => {
    const { operations } = readQueries(
      fleetSchema,
      "query Q($a: Boolean!) { boat(id: 1) @include(if: $a) { ... on Sail { mast } } boat(id: 1) { name } }",
    );
    expect(operations[0]?.text.replace(/\s+/g, " ")).toContain("boat(id: 1) { __typename name }");
  });

  it("conditions have no opposite if there are several", () => {
    const both = "... @skip(if: $b) { boats @include(if: $a) { id } boats @skip(if: $a) { id } }";
    expect(answerOf(`query Q($a: Boolean!, $b: Boolean!) { ${both} }`)).toBe("{ boats?: [[{ id: text }]] }");
  });

  it("a field with every condition that its parent has is always present in it", () => {
    expect(
      answerOf(
        "query Q($a: Boolean!, $b: Boolean!) { boat(id: 1) @include(if: $a) { id name } boat(id: 1) @include(if: $b) { id length } }",
      ),
    ).toBe("{ boat?: { id: text, name?: text, length?: number | null } | null }");
  });

  it("a field with a condition and with its opposite is always present", () => {
    expect(
      answerOf("query Q($a: Boolean!) { boats @include(if: $a) { id } boats @skip(if: $a) { id } }").replace(
        /boats: .*/,
        "boats",
      ),
    ).toBe("{ boats");
  });

  it("a fragment on the interface itself adds no member", () => {
    expect(answerOf("query Q { boat(id: 1) { ...F } } fragment F on Boat { name }")).toBe(
      "{ boat: { name: text } | null }",
    );
  });

  it("each member has the nullability of its own field", () => {
    expect(
      answerOf(
        "query Q { boat(id: 1) { ... on Sail { crew { name } } ... on Motor { crew { name } } } }".replace(
          "crew {",
          "sailors: crew {",
        ),
      ),
    ).toBe(
      '{ boat: { __typename: "Motor", crew: [{ name: text }] } + { __typename: "Sail", sailors: [{ name: text } | null] | null } + { __typename: "Tug" } | null }',
    );
  });

  it("unions, and members that no selection names", () => {
    expect(answerOf("query Q { found { ... on Person { name since } } }")).toBe(
      '{ found: [{ __typename: "Person", name: text, since: Instant | null } + { __typename: "Sail" }] }',
    );
  });

  it("abstract types inside abstract types", () => {
    expect(answerOf("query Q { boat(id: 1) { mate { ... on Tug { id } } ... on Sail { mate { name } } } }")).toBe(
      '{ boat: { __typename: "Motor"|"Tug", mate: { __typename: "Motor"|"Sail" } + { __typename: "Tug", id: text } | null }' +
        ' + { __typename: "Sail", mate: { __typename: "Motor"|"Sail", name: text } + { __typename: "Tug", id: text, name: text } | null } | null }',
    );
  });

  it("@include and @skip with variables make a field optional; constants decide at once", () => {
    expect(
      answerOf(
        "query Q($x: Boolean!) { boat(id: 1) { name @include(if: $x) id @skip(if: true) length @include(if: true) } }",
      ),
    ).toBe("{ boat: { name?: text, length: number | null } | null }");
  });

  it("a field that is also selected without a condition is always present", () => {
    expect(answerOf("query Q($x: Boolean!) { boat(id: 1) { name @include(if: $x) name } }")).toBe(
      "{ boat: { name: text } | null }",
    );
  });

  it("fields below a conditional field are present if it is; with two conditions neither is certain", () => {
    expect(answerOf("query Q($x: Boolean!) { boat(id: 1) @include(if: $x) { name } }")).toBe(
      "{ boat?: { name: text } | null }",
    );
    expect(
      answerOf(
        "query Q($x: Boolean!, $y: Boolean!) { boat(id: 1) @include(if: $x) { name } boat(id: 1) @skip(if: $y) { id } }",
      ),
    ).toBe("{ boat?: { name?: text, id?: text } | null }");
    expect(
      answerOf("query Q($x: Boolean!) { boat(id: 1) { name ...F @include(if: $x) } } fragment F on Boat { id }"),
    ).toBe("{ boat: { name: text, id?: text } | null }");
  });
});

describe("variables", () => {
  const variables = (text: string) =>
    readQueries(fleetSchema, text).operations[0]!.variables.map(
      (field) => `${field.name}${field.required ? "" : "?"}: ${short(field.type)}`,
    );

  it("are optional when they can be null or have a default", () => {
    expect(
      variables(
        "query Q($a: ID!, $b: Filter, $c: Int! = 3) { boat(id: $a) { id } boats(filter: $b, first: $c) { id } }",
      ),
    ).toEqual(["a: text", "b?: Filter | null", "c?: integer"]);
  });
});

describe("the query that is sent", () => {
  const sent = (...documents: string[]) => readQueries(fleetSchema, ...documents).operations[0]!;

  it("has __typename only if a union needs it", () => {
    const { text } = sent("query Q { boat(id: 1) { name mate { ... on Sail { mast } } } }");
    expect(text.match(/__typename/g)).toHaveLength(1);
    expect(text).toContain("mate {\n      __typename\n");
  });

  it("contains the fragments that it spreads, also indirectly, and no others", () => {
    const { text, fragments } = sent(
      "query Q { boat(id: 1) { ...A } }",
      "fragment A on Boat { ...B } fragment B on Boat { id } fragment C on Boat { name } query R { boat(id: 1) { ...C } }",
    );
    expect(fragments).toEqual(["A", "B"]);
    expect(text.match(/fragment \w+/g)).toEqual(["fragment A", "fragment B"]);
  });

  it("has the comment right above it as the operation's description", () => {
    expect(
      sent("# Not this one.\n\n# What it does,\n# in two lines.\nquery Q { boat(id: 1) { id } }").description,
    ).toBe("What it does,\nin two lines.");
  });
});

describe("uses", () => {
  const uses = (...documents: string[]) =>
    readQueries(fleetSchema, ...documents).uses.map(
      (use) => `${use.owner} ${use.kind} ${use.coordinate} ${use.operations.join()}`,
    );

  it("name every coordinate with its location and the operations that send it", () => {
    const found = uses("query Q { boat(id: 1) { ...F } }", "fragment F on Boat { status ... on Sail { mast } }");
    expect(found).toContain("Q selects Query.boat Q");
    expect(found).toContain("Q passes Query.boat(id:) Q");
    expect(found).toContain("F names Boat Q");
    expect(found).toContain("F selects Boat.status Q");
    expect(found).toContain("F selects Status Q");
    expect(found).toContain("F matches Sail Q");
    expect(found).toContain("F selects Sail.mast Q");
  });

  it("distinguish omitted arguments, values of variables, and literals", () => {
    const found = uses(
      "query Q($f: Filter) { boats(filter: $f) { id } a: boats(filter: { status: DOCKED }, first: 1) { id } }",
    );
    expect(found).toContain("Q passes Query.boats(first:)? Q");
    expect(found).toContain("Q sends Filter.and Q");
    expect(found).toContain("Q sends Status Q");
    expect(found).toContain("Q sends Status.DOCKED Q");
  });
});
