import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parse, validate } from "graphql";
import { readGraphqlContract } from "../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../src/core/graphql/documents/readQueryDocuments.js";
import { readContract } from "../../src/core/readContract.js";
import { planGraphql } from "../../src/core/sdk/planGraphql.js";
import type { PagingSettings } from "../../src/core/sdk/planPaging.js";
import { planRest } from "../../src/core/sdk/planRest.js";
import type { GraphqlPlan, RestPlan } from "../../src/core/sdk/sdkPlan.js";
import { demoText } from "../support/demoText.js";
import { packageRoot } from "../support/packageRoot.js";
import { makeGraphqlSchema } from "./random/graphql/makeGraphqlSchema.js";
import { makeQuery } from "./random/graphql/makeQuery.js";
import { makeContract } from "./random/makeContract.js";
import { Randomness } from "./random/randomness.js";

/** Plans a document. @throws Error if it cannot be read */
export function plannedRest(name: string, document: unknown, pages: PagingSettings = {}): RestPlan {
  const { contract, problems } = readContract(name, [{ document: "api.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest") throw new Error(problems.map(({ message }) => message).join("; "));
  return planRest(contract, { pages });
}

/** Plans a random contract; `occurred` are the features in it. */
export function randomRest(seed: number): { readonly plan: RestPlan; readonly occurred: Iterable<string> } {
  const made = makeContract(seed);
  return { plan: plannedRest(`c${String(seed)}`, made.document), occurred: made.occurred.keys() };
}

/** Plans queries of a schema. @throws Error if one of them cannot be read */
export function plannedGraphql(
  name: string,
  schema: string,
  queries: (schema: never) => readonly string[],
  unions: "open" | "closed",
): GraphqlPlan {
  const reading = readGraphqlContract(name, [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error(reading.problems.map(({ message }) => message).join("; "));
  const documents = queries(reading.schema as never).map((text, at) => ({ document: `q${String(at)}.graphql`, text }));
  const { problems, ...read } = readQueryDocuments(reading.schema, documents, { fragments: "named" });
  const errors = problems.filter(({ level }) => level === "error");
  if (errors.length > 0) throw new Error(errors.map(({ message }) => message).join("; "));
  return planGraphql(reading.contract, read, { unions, scalars: new Map() });
}

const queriesPerSchema = 3;

/** Plans three random queries of a random schema. */
export function randomGraphql(seed: number, unions: "open" | "closed"): GraphqlPlan {
  const random = new Randomness(seed * 7919);
  const queries = (schema: never): string[] =>
    Array.from({ length: queriesPerSchema }, (_, at) => {
      for (;;) {
        const { text } = makeQuery(schema, random, `Q${String(at)}`);
        if (validate(schema, parse(text)).length === 0) return text;
      }
    });
  return plannedGraphql(`c${String(seed)}`, makeGraphqlSchema(random), queries, unions);
}

/** Plans the contracts of the demo, with the queries of its app. */
export function plannedDemo(): [RestPlan, GraphqlPlan] {
  const folder = join(packageRoot, "demo/app/queries");
  const texts = readdirSync(folder).map((file) => readFileSync(join(folder, file), "utf8"));
  const pages = { listBerths: { by: "cursor", parameter: "cursor" } } as const;
  const { contract, problems } = readContract("berths", [
    { document: "berths.yaml", text: demoText("contracts/v1/berths.yaml") },
  ]);
  if (contract?.protocol !== "rest") throw new Error(problems.map(({ message }) => message).join("; "));
  const schema = demoText("contracts/v1/passages.graphql");
  return [planRest(contract, { pages }), plannedGraphql("passages", schema, () => texts, "open")];
}
