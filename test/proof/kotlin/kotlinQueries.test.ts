import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parse, validate } from "graphql";
import { expect, it } from "vitest";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/readQueryDocuments.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import type { GraphqlPlan } from "../../../src/core/sdk/sdkPlan.js";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { packageRoot } from "../../support/packageRoot.js";
import { makeGraphqlSchema } from "../random/graphql/makeGraphqlSchema.js";
import { makeQuery } from "../random/graphql/makeQuery.js";
import { Randomness } from "../random/randomness.js";
import { seedsFrom } from "../random/seedsFrom.js";
import { compiledInKotlin, isThorough, turned } from "./compiledInKotlin.js";

function planned(
  name: string,
  schema: string,
  queries: (schema: never) => readonly string[],
  unions: "open" | "closed",
): GraphqlPlan {
  const reading = readGraphqlContract(name, [{ document: "s.graphql", text: schema }]);
  if (!reading.contract || !reading.schema) throw new Error(reading.problems.map(({ message }) => message).join("; "));
  const documents = queries(reading.schema as never).map((text, at) => ({ document: `q${String(at)}.graphql`, text }));
  const { problems, ...read } = readQueryDocuments(reading.schema, documents, { fragments: "named" });
  expect(problems.filter(({ level }) => level === "error")).toEqual([]);
  return planGraphql(reading.contract, read, { unions, scalars: new Map() });
}

it.each([
  ...(isThorough ? [["as usual", "open", {}] as const] : []),
  ["with every setting turned", "closed", turned] as const,
])("the demo's queries compile in Kotlin, %s", async (how, unions, settings) => {
  if (!canCompileKotlin(`the demo's queries in Kotlin, ${how}`)) return;
  const folder = join(packageRoot, "demo/app/queries");
  const texts = readdirSync(folder).map((file) => readFileSync(join(folder, file), "utf8"));
  const schema = readFileSync(join(packageRoot, "demo/contracts/v1/passages.graphql"), "utf8");
  expect((await compiledInKotlin([planned("passages", schema, () => texts, unions)], settings)).complaints).toEqual([]);
});

const count = Number(process.env["RANDOM_SCHEMAS"] ?? 60);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);
const together = 30;
const queriesPerSchema = 3;

it(`queries of ${String(count)} random schemas compile in Kotlin without a warning, and every class loads`, async () => {
  if (!canCompileKotlin("random queries in Kotlin")) return;
  const complaints: string[] = [];
  for (let first = firstSeed; first < firstSeed + count; first += together) {
    const isTurned = ((first - firstSeed) / together) % 2 === 1;
    const plans = seedsFrom(first, Math.min(together, firstSeed + count - first)).map((seed) => {
      const random = new Randomness(seed * 7919);
      const queries = (schema: never): string[] =>
        Array.from({ length: queriesPerSchema }, (_, at) => {
          for (;;) {
            const { text } = makeQuery(schema, random, `Q${String(at)}`);
            if (validate(schema, parse(text)).length === 0) return text;
          }
        });
      return planned(`c${String(seed)}`, makeGraphqlSchema(random), queries, isTurned ? "closed" : "open");
    });
    complaints.push(...(await compiledInKotlin(plans, isTurned ? turned : {})).complaints);
  }
  expect(complaints).toEqual([]);
});
