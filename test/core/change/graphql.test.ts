import { describe, expect, it } from "vitest";
import { compareGraphql } from "../../../src/core/change/compare/compareGraphql.js";
import type { JudgedChange } from "../../../src/core/change/judge/judgedChange.js";
import { typescriptFacts } from "../../support/typescriptSdk.js";
import { judgeUse } from "../../../src/core/change/judge/impact.js";
import { readQueries } from "../../support/readGraphql.js";

const letter = { breaking: "B", risky: "R", compatible: "C" };

/** The rated changes between two schemas for a project with the given query documents. */
function judge(before: string, after: string, ...documents: string[]): JudgedChange[] {
  const old = readQueries(before, ...documents);
  const changes = compareGraphql(old.contract, readQueries(after).contract, typescriptFacts());
  return judgeUse(changes, "graphql", { queries: old.uses, searched: true });
}

const told = (changes: readonly JudgedChange[]) =>
  changes
    .map(
      ({ code, subject, verdict, use }) => `${code} ${subject} ${letter[verdict.code]}/${letter[verdict.apps]} ${use}`,
    )
    .sort();
const schema = (fields: string, more = "") => `type Query { ${fields} } ${more}`;

describe("output fields", () => {
  it.each([
    ["gone", "a: Int b: String", "a: Int", "{ b }", ["answer.field.gone Query.b B/B used"]],
    ["gone and not selected", "a: Int b: String", "a: Int", "{ a }", ["answer.field.gone Query.b B/B not used"]],
    ["added", "a: Int", "a: Int b: String!", "{ a }", ["answer.field.new Query.b C/C not used"]],
    ["nullable to non-null", "a: Int", "a: Int!", "{ a }", ["answer.null.lost Query.a C/R used"]],
    ["non-null to nullable", "a: Int!", "a: Int", "{ a }", ["answer.null.gained Query.a B/B used"]],
    ["non-null to nullable inside a list", "a: [Int!]", "a: [Int]", "{ a }", ["answer.null.gained Query.a[] B/B used"]],
    ["another type", "a: Int", "a: String", "{ a }", ["answer.type.changed Query.a B/B used"]],
    ["Int to Float", "a: Int", "a: Float", "{ a }", ["answer.type.changed Query.a C/R used"]],
    ["ID to String", "a: ID", "a: String", "{ a }", ["answer.format.changed Query.a C/C used"]],
    [
      "renamed",
      "a: Int berth: String",
      "a: Int berthCode: String",
      "{ berth }",
      ["answer.field.renamed Query.berth B/B used"],
    ],
    ["deprecated", "a: Int", 'a: Int @deprecated(reason: "no")', "{ a }", ["deprecated.new Query.a C/C used"]],
  ])("%s", (_name, before, after, query, changes) => {
    expect(told(judge(schema(before), schema(after), `query Q ${query}`))).toEqual(changes);
  });

  it("exactly the two of five operations that select a field are named, with file and line", () => {
    const documents = ["query A { a }", "query B { a b }", "query C { c }", "query D { c\n  b }", "query E { a c }"];
    const [change] = judge(schema("a: Int b: Int c: Float"), schema("a: Int c: Float"), ...documents);
    expect(change?.hits.map((hit) => [hit.owner, hit.place.document])).toEqual([
      ["B", "q1.graphql"],
      ["D", "q3.graphql"],
    ]);
  });

  it("a use in a fragment names the operations that send the fragment", () => {
    const before = schema("b: Boat", "type Boat { name: String id: ID }");
    const [change] = judge(
      before,
      schema("b: Boat", "type Boat { id: ID }"),
      "query A { b { ...F } } query B { b { id } } query C { b { ...G } } fragment F on Boat { name } fragment G on Boat { ...F }",
    );
    expect(change?.hits).toMatchObject([{ owner: "F", operations: ["A", "C"] }]);
  });
});

describe("arguments", () => {
  const withArgument = (argument: string) => schema(argument === "" ? "a: Int" : `a(${argument}): Int`);

  it.each([
    ["gone and passed", "x: Int", "", "query Q { a(x: 1) }", ["ask.parameter.gone Query.a(x:) B/B used"]],
    ["gone and not passed", "x: Int", "", "query Q { a }", ["ask.parameter.gone Query.a(x:) B/B not used"]],
    [
      "renamed",
      "quay: Int",
      "quayNumber: Int",
      "query Q { a(quay: 1) }",
      ["ask.parameter.renamed Query.a(quay:) B/B used"],
    ],
    ["required one added", "", "x: Int!", "query Q { a }", ["ask.parameter.new-required Query.a(x:) B/B used"]],
    ["optional one added", "", "x: Int", "query Q { a }", ["ask.parameter.new Query.a(x:) C/C not used"]],
    [
      "required now, and omitted",
      "x: Int",
      "x: Int!",
      "query Q { a }",
      ["ask.parameter.now-required Query.a(x:) B/B used"],
    ],
    [
      "loses its default, and is omitted",
      "x: Int! = 5",
      "x: Int!",
      "query Q { a }",
      ["ask.parameter.now-required Query.a(x:) B/B used"],
    ],
    [
      "optional now",
      "x: Int!",
      "x: Int",
      "query Q { a(x: 1) }",
      ["ask.null.gained Query.a(x:) C/C used", "ask.parameter.now-optional Query.a(x:) C/C not used"],
    ],
    [
      "another default, and omitted",
      "x: Int = 5",
      "x: Int = 6",
      "query Q { a }",
      ["ask.default.changed Query.a(x:) C/R used"],
    ],
    [
      "another default, and passed",
      "x: Int = 5",
      "x: Int = 6",
      "query Q { a(x: 1) }",
      ["ask.default.changed Query.a(x:) C/R not used"],
    ],
  ])("%s", (_name, before, after, query, changes) => {
    expect(told(judge(withArgument(before), withArgument(after), query))).toEqual(changes);
  });
});

describe("inputs, enums, unions and interfaces", () => {
  const asking = (input: string) => `type Query { a(f: F): Int } input F { ${input} }`;

  it.each([
    ["input field gone", "x: Int y: String", "x: Int", ["ask.field.gone F.y B/B used"]],
    ["required input field added", "x: Int", "x: Int y: String!", ["ask.field.new-required F.y B/B used"]],
    ["input field required now", "x: Int", "x: Int!", ["ask.field.now-required F.x B/B used"]],
    ["optional input field added", "x: Int", "x: Int y: Int", ["ask.field.new F.y C/C not used"]],
  ])("%s, sent in a variable", (_name, before, after, changes) => {
    expect(told(judge(asking(before), asking(after), "query Q($f: F) { a(f: $f) }"))).toEqual(changes);
  });

  it.each([
    ["left to a variable that may be null", "query Q($x: Int) { a(f: { x: $x }) }", "used"],
    ["left to a variable that has a value", "query Q($x: Int = 3) { a(f: { x: $x }) }", "not used"],
    ["given as null", "query Q { a(f: { x: null }) }", "used"],
    ["given", "query Q { a(f: { x: 1 }) }", "not used"],
  ])("a field that became required, %s", (_name, query, use) => {
    expect(told(judge(asking("x: Int"), asking("x: Int!"), query))).toEqual([`ask.field.now-required F.x B/B ${use}`]);
  });

  it("a single value is accepted as a list of one, but a variable keeps its type", () => {
    const before = schema("a(x: S, f: F): Int", "enum S { A } input F { x: S }");
    const after = schema("a(x: [S!], f: F): Int", "enum S { A } input F { x: S }");
    const inside = schema("a(x: S, f: F): Int", "enum S { A } input F { x: [S] }");
    const [written] = told(judge(before, after, "query Q { a(x: A) }"));
    expect(written).toBe("ask.type.changed Query.a(x:) C/C used");
    expect(told(judge(before, after, "query Q($x: S) { a(x: $x) }"))).toEqual([
      "ask.type.changed Query.a(x:) B/B used",
    ]);
    expect(told(judge(before, inside, "query Q($f: F) { a(f: $f) }"))).toEqual(["ask.type.changed F.x B/C used"]);
    expect(told(judge(before, inside, "query Q($x: S) { a(f: { x: $x }) }"))).toEqual([
      "ask.type.changed F.x B/B used",
    ]);
  });

  it("an input field that a literal omits is not in use", () => {
    expect(told(judge(asking("x: Int y: String"), asking("x: Int"), "query Q { a(f: { x: 1 }) }"))).toEqual([
      "ask.field.gone F.y B/B not used",
    ]);
  });

  it("an enum in both directions is rated for each direction", () => {
    const both = (values: string) => `type Query { a(s: S): S } enum S { ${values} }`;
    expect(told(judge(both("A B"), both("A C"), "query Q { a(s: A) }"))).toEqual([
      "answer.choice.gone S B/C used",
      "answer.choice.new S R/B used",
      "ask.choice.gone S B/B not used",
      "ask.choice.new S C/C not used",
    ]);
    expect(told(judge(both("A B"), both("A"), "query Q { a(s: B) }"))).toContain("ask.choice.gone S B/B used");
  });

  it("members are added to and removed from a union", () => {
    const union = (members: string) =>
      `type Query { u: U } type A { x: Int } type B { x: Int } type C { x: Int } union U = ${members}`;
    expect(told(judge(union("A | B"), union("A | C"), "query Q { u { __typename } }"))).toEqual([
      "answer.member.gone U B/C used",
      "answer.member.new U R/B used",
    ]);
  });

  it("an implementer is added to and removed from an interface", () => {
    const boats = (tug: string) =>
      `type Query { b: Boat t: Tug } interface Boat { id: ID } type Sail implements Boat { id: ID } type Tug ${tug} { id: ID }`;
    expect(told(judge(boats(""), boats("implements Boat"), "query Q { b { id } }"))).toEqual([
      "type.interface.gained Boat R/B not used",
    ]);
    expect(told(judge(boats(""), boats("implements Boat"), "query Q { b { __typename } }"))).toEqual([
      "type.interface.gained Boat R/B used",
    ]);
    expect(told(judge(boats("implements Boat"), boats(""), "query Q { b { ... on Tug { id } } }"))).toEqual([
      "type.interface.dropped Tug B/B used",
    ]);
  });

  it("types that were removed or have another kind", () => {
    const before = "type Query { b: Boat } interface Boat { id: ID } type Sail implements Boat { id: ID }";
    expect(
      told(judge(before, "type Query { b: Boat } type Boat { id: ID }", "query Q { b { ... on Sail { id } } }")),
    ).toEqual(["type.gone Sail B/B used", "type.kind.changed Boat B/B used"]);
  });

  it("a scalar was replaced by another", () => {
    const before = "scalar Day scalar Instant type Query { d: Day i: Instant }";
    expect(told(judge(before, before.replace("d: Day", "d: Instant"), "query Q { d }"))).toEqual([
      "answer.type.changed Query.d C/R used",
    ]);
  });

  it("a schema does not differ from itself in another order", () => {
    const one = "type Query { a: A b: Int } type A { a: A x(i: Int = 3): Int } enum E { X Y }";
    expect(judge(one, "enum E { X Y } type A { x(i: Int = 3): Int a: A } type Query { b: Int a: A }")).toEqual([]);
  });
});

describe("a type replaces another one, or is added next to others", () => {
  const named = "interface Named { name: String! }";
  const pet = (name: string, more = "implements Named") => `type ${name} ${more} { name: String! age: Int! }`;
  const pets = (...names: string[]) =>
    `type Query { pet: Pet! node: Named! } ${named} union Pet = ${names.join(" | ")} union Mate = ${names.join(" | ")}`;
  const before = `${pets("Cat", "Dog")} ${pet("Cat")} ${pet("Dog")}`;
  const withRat = (rat: string) => `${pets("Cat", "Dog", "Rat")} ${pet("Cat")} ${pet("Dog")} ${rat}`;

  it.each([
    ["is selected by an interface that it implements", "{ pet { ... on Named { name } } }", true, "R/B not used"],
    ["is selected by an interface that it lacks", "{ pet { ... on Named { name } } }", false, "B/B used"],
    ["is asked for by name", "{ pet { __typename ... on Named { name } } }", true, "R/B used"],
    ["has all that is common", "{ pet { ... on Named { name } ... on Cat { age } } }", true, "R/B used"],
    ["lacks what is common", "{ pet { ... on Named { name } ... on Cat { age } } }", false, "B/B used"],
    ["is selected by a union that it joins", "{ pet { ... on Mate { ... on Named { name } } } }", true, "R/B not used"],
    ["lacks what each fragment asks", "{ pet { ... on Cat { age } ... on Dog { age } } }", true, "B/B used"],
  ])("a member that %s", (_what, query, isNamed, expected) => {
    const changes = told(judge(before, withRat(pet("Rat", isNamed ? "implements Named" : "")), `query Q ${query}`));
    expect(changes.filter((change) => change.startsWith("answer.member.new"))).toEqual([
      `answer.member.new Pet ${expected}`,
    ]);
  });

  const boats = (type: string) =>
    `interface Named { name: String } type Query { boat: ${type} buoy: Buoy quay: Quay other: Boat } type Boat implements Named { name: String length: Int } type Buoy { name: String } type Quay { name: String owner: Int } ${type === "Pier" ? "type Pier implements Named { name: String }" : ""}`;
  it.each([
    ["is selected alike", "Quay", "{ boat { name } }", "not used"],
    ["is selected by an interface of both", "Pier", "{ boat { ... on Named { name } } }", "not used"],
    ["is asked for what it lacks", "Quay", "{ boat { name length } }", "used"],
    ["is asked which one it is", "Quay", "{ boat { __typename name } }", "used"],
    ["is asked for by a fragment on the old one", "Quay", "{ boat { ... on Boat { name } } }", "used"],
  ])("replaced by a type that %s", (_what, type, query, use) => {
    const changes = told(judge(boats("Boat"), boats(type), `query Q ${query}`));
    expect(changes.filter((change) => !change.startsWith("type.interface.gained"))).toEqual([
      `answer.type.changed Query.boat B/B ${use}`,
    ]);
  });

  it("an enum with another name and other values is rated by its values", () => {
    const moods = (name: string, values: string) => `type Query { mood: ${name} } enum ${name} { ${values} }`;
    expect(told(judge(moods("Mood", "CALM"), moods("State", "CALM"), "query Q { mood }"))).toEqual([
      "type.renamed Mood B/B not used",
    ]);
    expect(told(judge(moods("Mood", "CALM"), moods("State", "CALM WILD"), "query Q { mood }"))).toContain(
      "answer.choice.new Query.mood R/B used",
    );
  });
});
