import { parse, validate } from "graphql";
import { describe, expect, it } from "vitest";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { fragmentTypes } from "../../../src/core/sdk/lower/fragmentTypes.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import type { GraphqlPlan } from "../../../src/core/sdk/sdkPlan.js";
import { makeGraphqlSchema } from "../../proof/random/graphql/makeGraphqlSchema.js";
import { makeQuery } from "../../proof/random/graphql/makeQuery.js";
import { Randomness } from "../../proof/random/randomness.js";

function planned(schema: string, text: string, unions: "open" | "closed" = "open"): GraphqlPlan {
  const reading = readGraphqlContract("passages", [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error("The schema cannot be read.");
  const read = readQueryDocuments(reading.schema, [{ document: "q.graphql", text }], { fragments: "named" });
  expect(read.problems.filter(({ level }) => level === "error")).toEqual([]);
  return planGraphql(reading.contract, read, { unions });
}

/** The fragments that each type has, by name. */
function links(plan: GraphqlPlan): Record<string, string[]> {
  const name = (id: string): string => plan.types.get(id)?.name ?? id;
  return Object.fromEntries(
    [...fragmentTypes(plan).of].map(([id, of]): [string, string[]] => [name(id), [...of].map(name).sort()]).sort(),
  );
}

const schema = `
type Query { boat(id: ID!): Boat! thing: Thing! things: [Thing] }
interface Thing { id: ID! owner: Owner }
type Boat implements Thing { id: ID! owner: Owner crew: [Owner!]! length: Float! }
type Buoy implements Thing { id: ID! owner: Owner depth: Float! }
type Owner { name: String! home: Owner note: String }
`;

describe("fragment types", () => {
  it("a response has the type of a fragment that it spreads, and so do its nested objects", () => {
    const plan = planned(
      schema,
      "query One { boat(id: 1) { ...Line length } } fragment Line on Boat { id crew { name } owner { home { name } } }",
    );
    expect(links(plan)).toEqual({
      OneAnswerBoat: ["LinePart"],
      OneAnswerBoatCrew: ["LinePartCrew"],
      OneAnswerBoatOwner: ["LinePartOwner"],
      OneAnswerBoatOwnerHome: ["LinePartOwnerHome"],
    });
  });

  it("only the nearest type is declared if a fragment spreads another one", () => {
    const plan = planned(
      schema,
      "query One { boat(id: 1) { ...Line } } fragment Line on Boat { ...Short length } fragment Short on Thing { id }",
    );
    expect(links(plan)).toEqual({ LinePart: ["ShortPart"], OneAnswerBoat: ["LinePart"] });
  });

  it("an object is the member of a fragment's union that its type belongs to", () => {
    const plan = planned(
      schema,
      "query One { boat(id: 1) { ...Any } } fragment Any on Thing { id ... on Boat { length } ... on Buoy { depth } }",
    );
    expect(links(plan)).toEqual({ OneAnswerBoat: ["AnyPartBoat"] });
  });

  it.each(["open", "closed"] as const)(
    "a union has the type of a fragment that all its members spread, %s",
    (unions) => {
      const plan = planned(
        schema,
        "query One { thing { ...Any ... on Boat { crew { name } } } } fragment Any on Thing { id ... on Buoy { depth } }",
        unions,
      );
      expect(links(plan)).toEqual({
        OneAnswerThing: ["AnyPart"],
        OneAnswerThingBoat: ["AnyPartBoat"],
        OneAnswerThingBuoy: ["AnyPartBuoy"],
        ...(unions === "open" ? { OneAnswerThingNewer: ["AnyPartNewer"] } : {}),
      });
    },
  );

  it.each([
    ["what may be anything is null in the fragment, and absent in the answer", "Loose", []],
    ["a text is null in both", "String", ["RopedPartSlip"]],
  ])("%s", (_, scalar, expected) => {
    const plan = planned(
      `scalar Loose type Query { dock: Dock } type Dock { slip: Slip! } type Slip { rope: ${scalar} depth: Float! }`,
      `query Rope($deep: Boolean!) { dock { slip @skip(if: $deep) { depth } ...Roped } }
       fragment Roped on Dock { slip @include(if: $deep) { rope } }`,
    );
    expect(links(plan)["RopeAnswerDockSlip"] ?? []).toEqual(expected);
  });

  it("types with the same response stay apart if a fragment distinguishes them", () => {
    const plan = planned(
      schema,
      "query One($a: Boolean!) { thing { ...Any owner { name } } } " +
        "fragment Any on Thing { ... on Boat { owner @include(if: $a) { name } } ... on Buoy { owner { name } } }",
    );
    expect(links(plan)).toMatchObject({
      OneAnswerThingBoat: ["AnyPartBoat"],
      OneAnswerThingBuoy: ["AnyPartBuoy"],
    });
  });

  it("an optional selection does not have the fragment's type", () => {
    const plan = planned(
      schema,
      "query One($a: Boolean!) { boat(id: 1) { ...Line @include(if: $a) id } } fragment Line on Boat { length }",
    );
    expect(links(plan)).toEqual({});
  });

  it("an object does not have a type with fields that it may lack", () => {
    const plan = planned(
      schema,
      "query One($a: Boolean!) { boat(id: 1) { owner { note } ...Line } } " +
        "fragment Line on Boat { owner @include(if: $a) { name } }",
    );
    expect(links(plan)).toEqual({});
  });
});

it("every spread in random queries without conditions gets the fragment's type", () => {
  let count = 0;
  for (let seed = 1; seed <= 150; seed++) {
    const random = new Randomness(seed);
    const text = makeGraphqlSchema(random);
    const reading = readGraphqlContract("passages", [{ document: "s.graphql", text }]);
    if (!reading.schema) throw new Error("The schema cannot be read.");
    const query = makeQuery(reading.schema, random, "Q").text;
    if (validate(reading.schema, parse(query)).length > 0 || /@include|@skip/.test(query)) continue;
    const plan = planned(text, query, random.chance(0.5) ? "open" : "closed");
    const { of } = fragmentTypes(plan);
    const above = (id: string): string[] => [...(of.get(id) ?? [])].flatMap((each) => [each, ...above(each)]);
    const roots = new Map(plan.fragments.map(({ fragment, reference: { shape } }) => [fragment, shape]));
    for (const { id, shape } of plan.types.values())
      for (const fragment of shape.kind === "record" ? (shape.spreads ?? []) : []) {
        const root = roots.get(fragment);
        const key = root?.kind === "named" ? root.key : "";
        const members = plan.types.get(key)?.shape;
        const wanted = members?.kind === "union" ? members.members.map((each) => each.shape) : root ? [root] : [];
        const keys = wanted.map((each) => (each.kind === "named" ? each.key : ""));
        expect([seed, id, keys.some((each) => above(id).includes(each))]).toEqual([seed, id, true]);
        count++;
      }
  }
  expect(count).toBeGreaterThan(20);
});
