import type { Language } from "../../../src/core/languages/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import type { RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { bundled } from "../../support/bundled.js";
import { runtime as usual } from "../../support/readRest.js";
import { TemporaryProject } from "../../support/temporaryProject.js";
import type { SdkModule } from "./playScript.js";

/** The settings of the rows in every language. */
const settings = { dates: "decoded", int64: "bigint", choices: "open", verify: "answers" } as const;

/** The module of an SDK for the rows, in a language that Node runs. */
export function scriptSdk(
  language: Language,
  plan: RestPlan,
  runtime: ReadonlyMap<string, string> = usual,
): Promise<SdkModule> {
  const files = printSdk(language, { name: "app", contracts: [plan] }, { runtime, scalars: new Map(), settings });
  const project = new TemporaryProject(Object.fromEntries([...files].map(([path, text]) => [`sdk/${path}`, text])));
  return bundled<SdkModule>(project, `sdk/rows/index.${files.has("rows/index.ts") ? "ts" : "js"}`);
}
