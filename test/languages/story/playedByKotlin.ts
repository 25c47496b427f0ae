import { readFileSync } from "node:fs";
import { join } from "node:path";
import { contractContext, type ContractContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { statusClass } from "../../../src/core/languages/kotlin/calls/statusClass.js";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { seenInKotlin } from "../kotlin/seenInKotlin.js";
import { printStory } from "./kotlinStory.js";
import { playStory, storyScalars } from "./playStory.js";
import type { Told } from "./scriptDriver.js";
import { storyPlans, storyProject } from "./storyContracts.js";
import type { Story } from "./storyStep.js";
import type { ProgramOf } from "./toldOf.js";

/** Headers that OkHttp sets itself. */
const platformHeaders: ReadonlySet<string> = new Set([
  "accept-encoding",
  "connection",
  "content-length",
  "host",
  "transfer-encoding",
  "user-agent",
]);

/** Runs the story with an SDK in Kotlin, with a stand-in server of its own. */
export async function playedByKotlin(
  compiler: KotlinCompiler,
  story: Story,
  runtime: ReadonlyMap<string, string> = kotlinRuntime,
): Promise<readonly Told[]> {
  const project = storyProject(story);
  const { int64: _int64, ...settings } = story.settings;
  const plans = storyPlans(project, settings, { fragments: "named" });
  const sdk = lowerSdk(
    { name: "app", contracts: [plans.berths, plans.passages] },
    settledSettings(language.settings, settings),
  );
  const files = printLowered(language, sdk, { runtime, scalars: storyScalars, settings });
  const contexts: ContractContext[] = sdk.contracts.map((contract) =>
    contractContext(contract, "app", {
      scalars: storyScalars.get(contract.plan.name) ?? new Map<string, string>(),
      formats: {},
    }),
  );
  const helpers = ["Dump.kt", "Play.kt"].map((file): [string, string] => [
    `harness/${file}`,
    readFileSync(join(packageRoot, "test/support/kotlin", file), "utf8"),
  ]);
  const program = printStory(story, contexts);
  const compiled = await compiler.compile(new Map([...files, ...program, ...helpers]), { isStrict: false });
  if (!compiled.isFine) throw new Error(compiled.printed);
  return playStory({ story, project, plans, platformHeaders, language: inKotlin }, (control) =>
    compiler.run("app.StoryKt", [compiled.classes], [control]),
  );
}

const mishaps: Readonly<Record<string, string>> = {
  Unexpected: "unexpected",
  Malformed: "malformed",
  Unreachable: "unreachable",
  TimedOut: "timed-out",
};

const inKotlin: ProgramOf = {
  seen: seenInKotlin,
  several: "isFlow",
  declared: statusClass,
  mishap: ({ class: name, mishap }) =>
    name === "Aborted" || name === "Errors" ? name.toLowerCase() : mishaps[mishap as string],
};
