import { it } from "vitest";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { expectTruth } from "../truth/countedTruth.js";
import { countOfEdits, editedBerths, editedFleet } from "../truth/editedContracts.js";
import { appSources, truthOf, usesOf, type KotlinTruth } from "./truthInKotlin.js";

function made(namespace: string) {
  return { language, runtime: kotlinRuntime, settings: { namespace }, ending: ".kt" };
}

it(`${String(countOfEdits)} edits break an app in Kotlin where they are said to, and nowhere else`, async () => {
  if (!canCompileKotlin("predictions for Kotlin")) return;
  const namespace = "com.ostrel.harbour";
  const { sdk, variants } = editedBerths(made(namespace));
  const truth: KotlinTruth = { app: appSources("harbourApp"), namespace, contract: "berths", sdk };
  expectTruth("a contract", await truthOf(truth, variants(usesOf(truth, "BerthsConnection"))), countOfEdits);
});

it.each(["open", "closed"] as const)(
  `${String(countOfEdits)} edits of a schema break an app in Kotlin where they are said to, and nowhere else: unions and choices %s`,
  async (how) => {
    if (!canCompileKotlin(`predictions for queries in Kotlin, ${how}`)) return;
    const namespace = "com.ostrel.regatta";
    const { sdk, variants } = editedFleet(made(namespace), how);
    // A closed type has nothing newer.
    const app = appSources("regattaApp").map(({ document, text }) => ({
      document,
      text: how === "open" ? text : text.replace(/^.*(?:\.Newer ->|else -> "white").*\n/gm, ""),
    }));
    const truth: KotlinTruth = { app, namespace, contract: "fleet", sdk };
    expectTruth(`a schema, ${how}`, await truthOf(truth, variants(usesOf(truth, "FleetConnection"))), countOfEdits);
  },
);
