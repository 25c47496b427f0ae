import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { plannedGraphql } from "../plannedContracts.js";
import { compileQueries, schemaCount } from "../randomBatches.js";
import { uglyQueries, uglySchema } from "../ugly/uglyQueries.js";
import { compiledInSwift, turned } from "./compiledInSwift.js";

it("the demo's queries and ugly ones compile in Swift, with every setting changed", async () => {
  if (!canCompileSwift("the demo's queries in Swift")) return;
  const folder = join(packageRoot, "demo/app/queries");
  const texts = readdirSync(folder).map((file) => readFileSync(join(folder, file), "utf8"));
  const schema = readFileSync(join(packageRoot, "demo/contracts/v1/passages.graphql"), "utf8");
  const plans = [
    plannedGraphql("passages", schema, () => texts, "closed"),
    plannedGraphql("ugly", uglySchema, () => uglyQueries, "closed"),
    plannedGraphql("open", uglySchema, () => uglyQueries, "open"),
  ];
  expect((await compiledInSwift(plans, turned)).complaints).toEqual([]);
});

it(`queries of ${String(schemaCount)} random schemas compile in Swift without a warning`, async () => {
  if (!canCompileSwift("random queries in Swift")) return;
  const complaints = await compileQueries(
    async (contracts, isTurned) => (await compiledInSwift(contracts, isTurned ? turned : {})).complaints,
  );
  expect(complaints).toEqual([]);
});
