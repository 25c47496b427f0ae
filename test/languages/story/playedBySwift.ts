import { readFileSync } from "node:fs";
import { join } from "node:path";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { contractContext } from "../../../src/core/languages/swift/contractContext.js";
import { language } from "../../../src/core/languages/swift/language.js";
import { statusCase } from "../../../src/core/languages/swift/calls/statusCase.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import { packageRoot } from "../../support/packageRoot.js";
import { compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { seenInSwift } from "../swift/seenInSwift.js";
import { playStory, storyScalars } from "./playStory.js";
import type { Told } from "./scriptDriver.js";
import { storyPlans, storyProject } from "./storyContracts.js";
import type { Story } from "./storyStep.js";
import type { ProgramOf } from "./toldOf.js";
import { printStory } from "./swiftStory.js";

/** Headers that the platform's session sets itself. */
const platformHeaders: ReadonlySet<string> = new Set([
  "accept: */*",
  "accept-encoding",
  "accept-language",
  "connection",
  "content-length",
  "host",
  "transfer-encoding",
  "user-agent",
]);

/** Runs the story with an SDK in Swift, with a stand-in server of its own. */
export async function playedBySwift(story: Story): Promise<readonly Told[]> {
  const project = storyProject(story);
  const { int64: _int64, ...settings } = story.settings;
  const plans = storyPlans(project, settings, { fragments: "named" });
  const sdk = lowerSdk(
    { name: "app", contracts: [plans.berths, plans.passages] },
    settledSettings(language.settings, settings),
  );
  const files = printLowered(language, sdk, { runtime: swiftRuntime, scalars: storyScalars, settings });
  const contexts = sdk.contracts.map((contract) =>
    contractContext(contract, {}, storyScalars.get(contract.plan.name) ?? new Map<string, string>()),
  );
  const helpers = ["Dump.swift", "Play.swift"].map((file): [string, string] => [
    `Harness/${file}`,
    readFileSync(join(packageRoot, "test/support/swift", file), "utf8"),
  ]);
  const sources = [...files].filter(([path]) => path.endsWith(".swift"));
  const compiled = await compileSwift(new Map([...sources, ...printStory(story, contexts), ...helpers]), {
    isStrict: false,
  });
  if (!compiled.isFine) throw new Error(compiled.printed);
  return playStory({ story, project, plans, platformHeaders, language: inSwift }, (control) =>
    runSwift([compiled.program, control]),
  );
}

const inSwift: ProgramOf = {
  seen: seenInSwift,
  several: "isList",
  declared: statusCase,
  mishap: ({ class: name, mishap }) => {
    if (name === "errors") return name;
    return mishap === "cancelled" ? "aborted" : mishap;
  },
};
