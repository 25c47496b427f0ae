import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { packageRoot } from "../../support/packageRoot.js";
import { uglyQueries, uglySchema } from "../ugly/uglyQueries.js";
import { compiledInKotlin, isThorough, turned } from "./compiledInKotlin.js";
import { plannedGraphql } from "../plannedContracts.js";
import { compileQueries, schemaCount } from "../randomBatches.js";

it.each([
  ...(isThorough ? [["as usual", "open", {}] as const] : []),
  ["with every setting turned", "closed", turned] as const,
])("the demo's queries and ugly ones compile in Kotlin, %s", async (how, unions, settings) => {
  if (!canCompileKotlin(`the demo's queries in Kotlin, ${how}`)) return;
  const folder = join(packageRoot, "demo/app/queries");
  const texts = readdirSync(folder).map((file) => readFileSync(join(folder, file), "utf8"));
  const schema = readFileSync(join(packageRoot, "demo/contracts/v1/passages.graphql"), "utf8");
  const plans = [
    plannedGraphql("passages", schema, () => texts, unions),
    plannedGraphql("ugly", uglySchema, () => uglyQueries, unions),
  ];
  expect((await compiledInKotlin(plans, settings)).complaints).toEqual([]);
});

it(`queries of ${String(schemaCount)} random schemas compile in Kotlin without a warning, and every class loads`, async () => {
  if (!canCompileKotlin("random queries in Kotlin")) return;
  const complaints = await compileQueries(
    async (contracts, isTurned) => (await compiledInKotlin(contracts, isTurned ? turned : {})).complaints,
  );
  expect(complaints).toEqual([]);
});
