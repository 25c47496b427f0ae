import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { countedPlan, playGraphqlRows, saidOfFiles } from "../graphqlRows.js";

/** Prints two SDKs of the calls: one throws its failures, the other returns them. */
function printed(): Map<string, string> {
  const print = (settings: { readonly namespace: string; readonly failures: string }): [string, string][] =>
    [
      ...printSdk(
        language,
        { name: "counting", contracts: [countedPlan()] },
        { runtime: kotlinRuntime, scalars: new Map(), settings },
      ),
    ].map(([path, text]) => [`${settings.namespace}/${path}`, text]);
  return new Map([
    ...print({ namespace: "counting", failures: "throw" }),
    ...print({ namespace: "returning", failures: "return" }),
  ]);
}

it("queries, mutations and subscriptions in Kotlin match the vectors, over events and WebSockets", async ({ skip }) => {
  skip(!canCompileKotlin("GraphQL in Kotlin"));
  const program = readFileSync(join(packageRoot, "test/support/kotlin/GraphqlProgram.kt"), "utf8");
  const compiler = KotlinCompiler.shared();
  const compiled = await compiler.compile(new Map([...printed(), ["Program.kt", program]]), { isStrict: false });
  expect(compiled.isFine ? "" : compiled.printed).toBe("");
  const { subscriptions, asked, initial } = await playGraphqlRows(
    async (file) => (await compiler.run("counting.counted.ProgramKt", [compiled.classes], [file])).printed,
  );
  expect(subscriptions.found).toEqual(subscriptions.expected);
  const { many, chosen, one } = saidOfFiles;
  expect(asked).toBe(`"2|3|4|fog [n, 0] 4|Malformed(/n)|Unexpected(502) 502|${many}|${chosen}|${one}|true"`);
  for (const each of initial) expect(each).toEqual({ authorization: "Bearer t0ken" });
});
