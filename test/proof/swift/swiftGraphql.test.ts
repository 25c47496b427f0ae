import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { packageRoot } from "../../support/packageRoot.js";
import { canCompileSwift, compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { countedPlan, playGraphqlRows, saidOfFiles } from "../graphqlRows.js";
import { printedInSwift } from "./compiledInSwift.js";

it("queries, mutations and subscriptions in Swift match the vectors, over events and WebSockets", async ({ skip }) => {
  skip(!canCompileSwift("GraphQL in Swift"));
  // Two SDKs in one target: one throws its failures, the other returns them.
  const sources = [
    ...printedInSwift([countedPlan()], {}),
    ...printedInSwift([countedPlan()], { prefix: "Returning", failures: "return" }),
  ].filter(([path]) => path.endsWith(".swift"));
  const program = readFileSync(join(packageRoot, "test/support/swift/GraphQLProgram.swift"), "utf8");
  // It also gives a deprecated field.
  const compiled = await compileSwift(new Map([...sources, ["main.swift", program]]), { isStrict: false });
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const { subscriptions, asked, initial } = await playGraphqlRows(
    async (file) => (await runSwift([compiled.program, file])).printed,
  );
  expect(subscriptions.found).toEqual(subscriptions.expected);
  const { many, chosen, one } = saidOfFiles;
  expect(asked).toBe(`"2|3|4|fog [n, 0] 4|malformed /n|unexpected 502|${many}|${chosen}|${one}|true"`);
  for (const each of initial) expect(each).toEqual({ authorization: "Bearer t0ken" });
});
