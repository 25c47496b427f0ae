import { it } from "vitest";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
it("demo", () => {
  const { contract } = readContract("berths", [{ document: "berths.yaml", text: readFileSync("demo/contracts/v1/berths.yaml", "utf8") }]);
  if (contract?.protocol !== "rest") throw new Error();
  const plan = planRest(contract, { standing: ["harbourId"] } as never);
  const files = printSdk(language, { name: "skipper app", contracts: [plan] }, { runtime: kotlinRuntime, scalars: new Map(), settings: {} });
  for (const [path, text] of files) { const w = join("/tmp/kd", path); mkdirSync(dirname(w), { recursive: true }); writeFileSync(w, text); }
});
