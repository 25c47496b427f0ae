import { buildSchema, parse, validate } from "graphql";
import { describe, expect, it } from "vitest";
import { queryAdvice } from "../../../src/core/graphql/documents/queryAdvice.js";
import { parseText } from "../../../src/core/graphql/parseText.js";

const schema = buildSchema(`
directive @look(days: Int!) on FIELD
type Query { boat(id: ID!): Boat mood(m: Mood, n: Int, s: String, b: Boolean, i: In, by: By): Mood any: Any pier: Pier }
interface Named { name: String }
type Boat implements Named { name: String id: ID }
type Pier { width: Int }
union Any = Boat | Pier
enum Mood { CALM WILD }
input In { line: Int! at: [String!] }
input By @oneOf { id: ID name: String }
`);

function advise(query: string): [string, string | undefined] {
  const document = parse(query);
  const [error] = validate(schema, document);
  if (!error) throw new Error(`${query} is valid.`);
  const { message, hint } = queryAdvice(error, { schema, document });
  return [message, hint];
}

describe("advice about an error in a query", () => {
  it.each([
    ['{ mood(m: "CALM") }', '`"CALM"` is not a value of `Mood`.', "Write `CALM`, without quotes."],
    ['{ mood(m: "CLM") }', '`"CLM"` is not a value of `Mood`.', "Did you mean `CALM`?"],
    ["{ mood(m: 3) }", "`3` is not a value of `Mood`.", "It has `CALM` and `WILD`."],
    ["{ mood(m: CLM) }", "`Mood` has no value `CLM`.", "Did you mean `CALM`?"],
    ['{ mood(n: "3") }', '`"3"` is not a valid `Int`.', "Write `3`, without quotes."],
    ['{ mood(n: "three") }', '`"three"` is not a valid `Int`.', undefined],
    ["{ mood(n: 3000000000) }", "`3000000000` is too large for `Int`, which has 32 bits.", undefined],
    ["{ mood(s: 3) }", "`3` is not a valid `String`.", 'Write `"3"`, in quotes.'],
    ['{ mood(b: "true") }', '`"true"` is not a valid `Boolean`.', "Write `true`, without quotes."],
    ["{ mood(i: {}) }", "`In` requires the field `line`.", "Add `line: …`, a value of `Int!`."],
    ["{ mood(i: {line: 1, lin: 2}) }", "`In` has no field `lin`.", "Did you mean `line`?"],
    ['{ mood(i: "x") }', '`In` is expected, but `"x"` was found.', undefined],
    [
      "{ mood(i: {line: null}) }",
      "`Int!` is expected, but `null` was found.",
      "Null is not allowed here. Use a value, or omit it if it has a default.",
    ],
    ["{ any { ...Bot } } fragment Boot on Boat { id }", "There is no fragment `Bot`.", "Did you mean `Boot`?"],
    ["{ any { ...Bot } }", "There is no fragment `Bot`.", "Write it: `fragment Bot on … { … }`."],
    [
      "{ boat { id } }",
      "`boat` requires the argument `id`.",
      "Write `boat(id: …)` with a value, or with a variable `$id: ID!`.",
    ],
    ["{ mood @look }", "`@look` requires the argument `days`.", "Write `@look(days: …)` with a value of `Int!`."],
    ["{ mood @lok }", "The schema has no directive `@lok`.", "Did you mean `@look`?"],
    ["query Q @look(days: 1) { mood }", "`@look` is not allowed at a query.", "It is allowed at a field."],
    ["query Q { mood(n: $n) }", "`Q` declares no variable `$n`.", "Declare it in the first line: `$n: Int`."],
    ["query Q($num: Int) { mood(n: $nun) }", "`Q` declares no variable `$nun`.", "Did you mean `$num`?"],
    ["{ mood(n: $n) }", "The operation declares no variable `$n`.", "Declare it in the first line: `$n: Int`."],
    ["query Q($x: Int) { mood }", "`Q` never uses its variable `$x`.", "Use it, or remove `$x` from the first line."],
    [
      "query Q($x: String) { boat(id: $x) { id } }",
      "`$x` is `String`, and `ID!` is expected here.",
      "Declare it as `$x: ID!`.",
    ],
    ["{ pier { ... on Boat { id } } }", "A `Pier` is never a `Boat`.", "A fragment here can be on `Pier`."],
    [
      "{ any { ... on Mood { id } } }",
      "A fragment cannot be on `Mood`, which has no fields.",
      "A fragment must be on an object, an interface or a union.",
    ],
    [
      '{ mood(by: {id: "1", name: "a"}) }',
      "`By` requires exactly one of its fields.",
      "Set exactly one of `id` and `name`.",
    ],
    [
      "{ mood(by: {id: null}) }",
      "`By` requires exactly one of its fields, not null.",
      "Set `id` to a value, or set another one of `id` and `name`.",
    ],
    [
      "query Q($i: ID) { mood(by: {id: $i}) }",
      "`By` requires exactly one field that is not null, but `$i` can be null.",
      "Declare it as `$i: ID!`.",
    ],
    ["{ pier { bollards } }", "Cannot query field `bollards` on type `Pier`.", "It has `width`."],
    ["{ mood { a } }", "`mood` is `Mood`, which has no fields to select.", "Write `mood` alone."],
    ["{ pier }", "`pier` is `Pier`, so fields must be selected.", "Write `pier { width }`."],
    ["{ pier(x: 1) { width } }", "`Query.pier` has no argument `x`.", "It has no arguments: write `pier` alone."],
  ])("%s", (query, message, hint) => {
    expect(advise(query)).toEqual([message, hint]);
  });

  it.each([
    ["mutaton B { a }", "nothing begins with `mutaton`. Did you mean `mutation`?"],
    ["zzzzz B { a }", "nothing begins with `zzzzz`. There it can begin with `query`, `mutation`"],
    ["query Q($x) { a }", "Expected `:`, found `)`"],
  ])("a document that does not parse: %s", (text, message) => {
    const parsed = parseText({ document: "q.graphql", text });
    expect(parsed.ok ? "" : parsed.message).toContain(message);
  });
});
