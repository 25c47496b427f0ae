import { it } from "vitest";
import { language } from "../../../src/core/languages/swift/language.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { expectTruth } from "../truth/countedTruth.js";
import { countOfEdits, editedBerths, editedFleet } from "../truth/editedContracts.js";
import { appSources, truthOf, usesOf, type SwiftTruth } from "./truthInSwift.js";

const made = { language, runtime: swiftRuntime, settings: {}, ending: ".swift" };

it(`${String(countOfEdits)} edits break an app in Swift where they are said to, and nowhere else`, async () => {
  if (!canCompileSwift("predictions for Swift")) return;
  const { sdk, variants } = editedBerths(made);
  const truth: SwiftTruth = { app: appSources("harbourApp"), contract: "Berths", sdk };
  expectTruth("a contract", await truthOf(truth, variants(usesOf(truth, "BerthsConnection"))), countOfEdits);
});

it.each(["open", "closed"] as const)(
  `${String(countOfEdits)} edits of a schema break an app in Swift where they are said to, and nowhere else: unions and choices %s`,
  async (how) => {
    if (!canCompileSwift(`predictions for queries in Swift, ${how}`)) return;
    const { sdk, variants } = editedFleet(made, how);
    // A closed type has nothing newer.
    const app = appSources("regattaApp").map(({ document, text }) => ({
      document,
      text:
        how === "open"
          ? text
          : text.replace(/^.*case \.newer\b.*\n(?: +return other\.name\n)?|^.*default: return "white".*\n/gm, ""),
    }));
    const truth: SwiftTruth = { app, contract: "Fleet", sdk };
    expectTruth(`a schema, ${how}`, await truthOf(truth, variants(usesOf(truth, "FleetConnection"))), countOfEdits);
  },
);
