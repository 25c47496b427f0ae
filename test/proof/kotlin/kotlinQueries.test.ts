import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { packageRoot } from "../../support/packageRoot.js";
import { seedsFrom } from "../random/seedsFrom.js";
import { uglyQueries, uglySchema } from "../ugly/uglyQueries.js";
import { compiledInKotlin, isThorough, turned } from "./compiledInKotlin.js";
import { plannedGraphql, randomGraphql } from "../plannedContracts.js";

it.each([
  ...(isThorough ? [["as usual", "open", {}] as const] : []),
  ["with every setting turned", "closed", turned] as const,
])("the demo's queries, and ugly ones, compile in Kotlin, %s", async (how, unions, settings) => {
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

const count = Number(process.env["RANDOM_SCHEMAS"] ?? 60);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);
const together = 30;

it(`queries of ${String(count)} random schemas compile in Kotlin without a warning, and every class loads`, async () => {
  if (!canCompileKotlin("random queries in Kotlin")) return;
  const complaints: string[] = [];
  for (let first = firstSeed; first < firstSeed + count; first += together) {
    const isTurned = ((first - firstSeed) / together) % 2 === 1;
    const plans = seedsFrom(first, Math.min(together, firstSeed + count - first)).map((seed) =>
      randomGraphql(seed, isTurned ? "closed" : "open"),
    );
    complaints.push(...(await compiledInKotlin(plans, isTurned ? turned : {})).complaints);
  }
  expect(complaints).toEqual([]);
});
