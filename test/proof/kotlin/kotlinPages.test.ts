import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { readContract } from "../../../src/core/readContract.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/readQueryDocuments.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";

function demo(path: string): string {
  return readFileSync(join(packageRoot, "demo", path), "utf8");
}

function demoSdk(): Map<string, string> {
  const { contract } = readContract("berths", [{ document: "berths.yaml", text: demo("contracts/v1/berths.yaml") }]);
  const reading = readGraphqlContract("passages", [
    { document: "s.graphql", text: demo("contracts/v1/passages.graphql") },
  ]);
  if (contract?.protocol !== "rest" || !reading.contract || !reading.schema)
    throw new Error("The demo cannot be read.");
  const texts = readdirSync(join(packageRoot, "demo/app/queries")).map((file) => ({
    document: file,
    text: demo(`app/queries/${file}`),
  }));
  const { problems, ...read } = readQueryDocuments(reading.schema, texts, { fragments: "named" });
  expect(problems.filter(({ level }) => level === "error")).toEqual([]);
  const contracts = [planRest(contract, {}), planGraphql(reading.contract, read, { unions: "open" })];
  return printSdk(
    language,
    { name: "app", contracts },
    { runtime: kotlinRuntime, scalars: new Map(), settings: { dates: "decoded", namespace: "app" } },
  );
}

it("the samples of the pages and of the README compile", async () => {
  if (!canCompileKotlin("samples of documentation in Kotlin")) return;
  const files = demoSdk();
  const samples = [...files].flatMap(([path, text]) => {
    const [contract = ""] = path.split("/");
    if (!path.endsWith(".md") || path === "README.md") return [];
    return [...text.matchAll(/```kotlin\n([^]*?)\n```/g)].map(([, code = ""]) => ({ contract, code }));
  });
  expect(samples.length).toBeGreaterThan(20);
  for (const contract of ["berths", "passages"]) {
    const own = samples.filter((each) => each.contract === contract);
    const type = `${contract.charAt(0).toUpperCase()}${contract.slice(1)}Connection`;
    const functions = own.map(
      ({ code }, at) => `suspend fun sample${String(at)}(connection: ${type}) {\n    ${code}\n}\n`,
    );
    files.set(
      `samples/${contract}.kt`,
      `package samples.${contract}\n\nimport app.${contract}.*\nimport app.wire.*\nimport java.time.Instant\nimport kotlinx.serialization.json.*\nimport okio.ByteString.Companion.encodeUtf8\n\n${functions.join("\n")}`,
    );
  }
  const readme = files.get("README.md") ?? "";
  const connecting = [...readme.matchAll(/```kotlin\n(import [^]*?)\n```/g)].map(([, code = ""]) => code);
  expect(connecting).toHaveLength(2);
  connecting.forEach((code, at) => {
    files.set(
      `samples/connect${String(at)}.kt`,
      `package connect${String(at)}\n\n${code}\n\nobject session { fun token(): String = "" }\n`,
    );
  });
  const { isFine, printed } = await KotlinCompiler.shared().compile(files, { isStrict: false });
  expect(isFine ? "" : printed).toBe("");
});
