import { readQueryDocuments, type QueryReading } from "../../src/core/graphql/documents/readQueryDocuments.js";
import { readGraphqlContract } from "../../src/core/graphql/readGraphqlContract.js";
import type { GraphqlContract } from "../../src/core/contract/model.js";

/** Reads a schema and query documents, with the names q0.graphql, q1.graphql… */
export function readQueries(schema: string, ...documents: string[]): QueryReading & { contract: GraphqlContract } {
  const reading = readGraphqlContract("fleet", [{ document: "schema.graphql", text: schema }]);
  if (!reading.schema || !reading.contract) throw new Error(reading.problems.map((each) => each.message).join("\n"));
  const texts = documents.map((text, at) => ({ document: `q${String(at)}.graphql`, text }));
  return { ...readQueryDocuments(reading.schema, texts), contract: reading.contract };
}

/** A small fleet, enough for every kind of selection. */
export const fleetSchema = `
scalar Instant
enum Status { AFLOAT DOCKED }
interface Boat { id: ID! name: String! length: Float mate: Boat status: Status! }
type Sail implements Boat { id: ID! name: String! length: Float mate: Boat status: Status! mast: Float! crew: [Person] }
type Motor implements Boat { id: ID! name: String! length: Float mate: Boat status: Status! power: Int! crew: [Person!]! }
type Tug implements Boat { id: ID! name: String! length: Float mate: Boat status: Status! }
type Person { name: String! since: Instant }
union Found = Sail | Person
input Filter { status: Status = AFLOAT, and: [Filter!], name: String }
input Pick @oneOf { id: ID name: String }
type Query {
  boat(id: ID!): Boat
  boats(filter: Filter, first: Int! = 10): [[Boat!]!]!
  found(text: String): [Found!]!
  pick(by: Pick!): Boat
}
type Subscription { docked: Boat! }
`;
