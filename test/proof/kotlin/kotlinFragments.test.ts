import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";

// The nested classes have names of Kotlin's own, of types of the schema, and of the classes around them.
const schema = `
type Query { boat(id: ID!): Boat! things: [Thing!]! }
interface Thing { id: ID! owner: Owner }
enum Size { SMALL LARGE }
type Boat implements Thing {
  id: ID! owner: Owner crew: [Owner!]! length: Float! list: List! size: Size!
  fooBar: Int! foo_bar: String! old: Size @deprecated(reason: "Use size.")
}
type Buoy implements Thing { id: ID! owner: Owner depth: Float! }
type Owner { name: String! size: Size! any: Owner home: Owner }
type List { string: String! list: List! size: Size! sizes: [Size!]! }
`;
const queries = `
query One {
  boat(id: 1) { ...Line ...Boat list { list { list { string size } sizes } } size: crew { size } }
  things { ...Thing ... on Boat { length } owner { name } }
}
fragment Line on Boat { ...Short list { string list { sizes list { size } } } crew { name } }
fragment Short on Thing { id owner { any { home { name } } } }
fragment Boat on Boat { fooBar foo_bar old }
fragment Thing on Thing { id ... on Boat { size } ... on Buoy { depth } }
query Other { boat(id: 1) { foo_bar } }
query Deep { boat(id: 1) { ...Thing owner { owner: home { owner: home { size } } } } }
`;
const answer = {
  boat: {
    id: "b1",
    owner: { any: { home: { name: "Ira" } } },
    list: { string: "outer", list: { sizes: ["SMALL"], list: { string: "inner", size: "LARGE" } } },
    crew: [{ name: "Ola" }, { name: "Per" }],
    size: [{ size: "SMALL" }],
    fooBar: 3,
    foo_bar: "four",
    old: null,
  },
  things: [
    { __typename: "Boat", id: "b2", size: "HUGE", length: 4.5, owner: { name: "Ira" } },
    { __typename: "Buoy", id: "y1", depth: 2, owner: null },
    { __typename: "Kite", id: "k1", owner: null },
  ],
};

it("components accept fragments, whatever nested classes are named", async () => {
  if (!canCompileKotlin("fragments in Kotlin")) return;
  const reading = readGraphqlContract("boats", [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error("The schema cannot be read.");
  const read = readQueryDocuments(reading.schema, [{ document: "q.graphql", text: queries }], { fragments: "named" });
  expect(read.problems.filter(({ level }) => level === "error")).toEqual([]);
  const plan = planGraphql(reading.contract, read, { unions: "open" });
  const files = printSdk(
    language,
    { name: "fragments", contracts: [plan] },
    { runtime: kotlinRuntime, scalars: new Map(), settings: {} },
  );
  const compiler = KotlinCompiler.shared();
  const sdk = await compiler.compile(files);
  expect(sdk.printed).toBe("");
  expect(await compiler.load(sdk.classes)).toMatchObject({ isFine: true });
  // The program reads a response with the form, which only the SDK's own module sees.
  const program = readFileSync(join(packageRoot, "test/support/kotlin/FragmentProgram.kt"), "utf8");
  const whole = await compiler.compile(new Map([...files, ["FragmentProgram.kt", program]]), { isStrict: false });
  expect(whole.printed).toBe("");
  const ran = await compiler.run("FragmentProgramKt", [whole.classes], [JSON.stringify(answer)]);
  expect(ran.printed.trim().split("\n")).toEqual([
    "b1 of outer with [Ola, Per]",
    "3 and four",
    "inner",
    "boat b2, HUGE",
    "buoy y1, 2.0",
    "Kite k1",
    "b2: 4.5, Ira",
    "y1: 2.0, null",
    "k1: Kite",
    "true",
  ]);
});
