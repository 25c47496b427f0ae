import { describe, expect, it } from "vitest";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";

const schema = `
  type Query { boats: [Boat!]!, moored: Moored!, craft: Craft! }
  union Boat = Sail | Motor
  interface Craft { name: String! }
  interface Moored implements Craft { name: String!, berth: String! }
  type Sail implements Moored & Craft { name: String!, berth: String! }
  type Motor implements Moored & Craft { name: String!, berth: String! }
`;

/** The fields of the response to a query's only field: of each member, if there are several. */
function answered(query: string, unions: "open" | "closed"): string[] {
  const reading = readGraphqlContract("boats", [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error("The schema cannot be read.");
  const read = readQueryDocuments(reading.schema, [{ document: "q.graphql", text: query }], { fragments: "named" });
  const { types } = planGraphql(reading.contract, read, { unions, scalars: new Map() });
  const records = [...types.values()].flatMap(({ name, shape }) =>
    shape.kind === "record" && name !== "QAnswer"
      ? [`${name}: ${shape.fields.map((field) => field.name).join(" ")}`]
      : [],
  );
  return records.sort();
}

describe("types that are newer than the schema", () => {
  it("get no value if only fragments on known types select fields and unions are open", () => {
    const query = "query Q { boats { ... on Sail { name } ... on Motor { name } } }";
    expect(answered(query, "open")).toEqual([
      "QAnswerBoatsMotorOrSail: __typename name",
      "QAnswerBoatsNewer: __typename",
    ]);
    expect(answered(query, "closed")).toEqual(["QAnswerBoats: __typename name"]);
  });

  it("may lack an interface that all known types have, unless it is declared", () => {
    expect(answered("query Q { boats { ... on Craft { name } } }", "open")).toEqual([
      "QAnswerBoatsMotorOrSail: __typename name",
      "QAnswerBoatsNewer: __typename",
    ]);
    expect(answered("query Q { craft { name ... on Moored { berth } } }", "open")).toEqual([
      "QAnswerCraftMotorOrSail: __typename name berth",
      "QAnswerCraftNewer: __typename name",
    ]);
    // Everything that is moored is a craft.
    expect(answered("query Q { moored { ... on Craft { name } } }", "open")).toEqual(["QAnswerMoored: name"]);
  });

  it("get no member of their own if all members have the same response", () => {
    expect(answered("query Q { craft { name } }", "open")).toEqual(["QAnswerCraft: name"]);
  });
});
