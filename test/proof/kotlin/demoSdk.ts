import { readdirSync } from "node:fs";
import { join } from "node:path";
import { expect } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { demoText } from "../../support/demoText.js";
import { packageRoot } from "../../support/packageRoot.js";

/** Returns the demo's contracts and queries as an SDK with the name `app`: texts by path. */
export function demoSdk(settings: Readonly<Record<string, unknown>>): Map<string, string> {
  const { contract } = readContract("berths", [
    { document: "berths.yaml", text: demoText("contracts/v1/berths.yaml") },
  ]);
  const reading = readGraphqlContract("passages", [
    { document: "s.graphql", text: demoText("contracts/v1/passages.graphql") },
  ]);
  if (contract?.protocol !== "rest" || !reading.contract || !reading.schema)
    throw new Error("The demo cannot be read.");
  const texts = readdirSync(join(packageRoot, "demo/app/queries")).map((file) => ({
    document: file,
    text: demoText(`app/queries/${file}`),
  }));
  const { problems, ...read } = readQueryDocuments(reading.schema, texts, { fragments: "named" });
  expect(problems.filter(({ level }) => level === "error")).toEqual([]);
  const contracts = [planRest(contract, {}), planGraphql(reading.contract, read, { unions: "open" })];
  return printSdk(language, { name: "app", contracts }, { runtime: kotlinRuntime, scalars: new Map(), settings });
}
