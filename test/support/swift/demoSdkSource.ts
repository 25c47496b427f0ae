import { language } from "../../../src/core/languages/swift/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { SdkSource } from "../../../src/workspace/languages/source/sdkSource.js";
import { demoText } from "../demoText.js";
import { swiftRuntime } from "./swiftRuntime.js";

/** The SDK of the demo's REST contract, as its own source. */
export function demoSdkSource(settings: Readonly<Record<string, unknown>> = {}): SdkSource {
  const { contract } = readContract("berths", [
    { document: "berths.yaml", text: demoText("contracts/v1/berths.yaml") },
  ]);
  if (contract?.protocol !== "rest") throw new Error("The demo cannot be read.");
  const pages = { listBerths: { by: "cursor", parameter: "cursor" } } as const;
  const files = printSdk(
    language,
    { name: "app", contracts: [planRest(contract, { pages })] },
    { runtime: swiftRuntime, scalars: new Map(), settings },
  );
  const all = [...files].flatMap(([document, text]) => (document.endsWith(".swift") ? [{ document, text }] : []));
  return {
    name: "app",
    connect: "BerthsConnection",
    files: all.filter(({ document }) => /^\w*Berths\//.test(document)),
    others: all.filter(({ document }) => /^\w*Wire\//.test(document)),
  };
}
