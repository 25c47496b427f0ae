import { readFileSync } from "node:fs";
import { join } from "node:path";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { contractContext } from "../../../src/core/languages/swift/contractContext.js";
import { language } from "../../../src/core/languages/swift/language.js";
import { statusCase } from "../../../src/core/languages/swift/statusCase.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import { packageRoot } from "../../support/packageRoot.js";
import { compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { seenInSwift } from "../swift/seenInSwift.js";
import { withControl } from "../vectors/playProgram.js";
import type { Data } from "../vectors/vectorRow.js";
import { inContractOrder } from "./contractOrder.js";
import { Recorder } from "./recorder.js";
import { callOf, kindOf, type Told } from "./scriptDriver.js";
import { storyPlans, storyProject } from "./storyContracts.js";
import type { Story, StoryStep } from "./storyStep.js";
import { printStory } from "./swiftStory.js";

type Fields = Readonly<Record<string, Data>>;

/** Headers that the platform's session sets by itself. */
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

/** Plays the story with an SDK in Swift, against a stand-in of its own. */
export async function playedBySwift(story: Story): Promise<readonly Told[]> {
  const project = storyProject(story);
  const { int64: _int64, ...settings } = story.settings;
  const plans = storyPlans(project, settings, { fragments: "named" });
  const sdk = lowerSdk(
    { name: "app", contracts: [plans.berths, plans.passages] },
    settledSettings(language.settings, settings),
  );
  const scalars = new Map([["passages", new Map(["Day", "Instant"].map((name) => [name, "String"]))]]);
  const files = printLowered(language, sdk, { runtime: swiftRuntime, scalars, settings });
  const contexts = sdk.contracts.map((contract) =>
    contractContext(contract, {}, scalars.get(contract.plan.name) ?? new Map<string, string>()),
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
  const recorder = await Recorder.before(await project.play(), platformHeaders);
  const told: Told[] = [];
  try {
    await withControl(
      {
        address: recorder.address,
        begin: (at) => {
          recorder.interrupts = [...(story.steps[at]?.interrupts ?? [])];
          recorder.requests = [];
        },
        end: (at, said) => {
          const step = story.steps[at];
          if (step) told.push({ line: JSON.stringify(lineOf(step, said, plans)), requests: recorder.requests });
        },
      },
      (control) => runSwift([compiled.program, control]),
    );
  } finally {
    recorder.close();
  }
  return told;
}

/** What the program saw in a step, as every language tells it. */
function lineOf(step: StoryStep, said: Fields, plans: ReturnType<typeof storyPlans>): object {
  const plan = step.contract === "berths" ? plans.berths : plans.passages;
  const { answer, item } = callOf(plan, step.call);
  const of = step.isPaged === true ? item : answer;
  const tell = (value: Data): unknown => inContractOrder(seenInSwift(value, of, plan.types), of, plan.types);
  const items = said["isList"] === true ? (said["gives"] as readonly Data[]).map(tell) : undefined;
  const fails = said["fails"] as Fields | undefined;
  if (!fails) return items ? { items } : { gives: tell(said["gives"] ?? null) };
  const status = statusOf(step, fails, plans);
  const path = fails["path"] ?? undefined;
  return {
    ...(items && items.length > 0 ? { items } : {}),
    fails: { kind: kindOf(status), status, ...(path === undefined ? {} : { path }) },
  };
}

function statusOf(step: StoryStep, fails: Fields, plans: ReturnType<typeof storyPlans>): unknown {
  const name = fails["class"] as string;
  if (name === "errors") return name;
  if (fails["mishap"] === "cancelled") return "aborted";
  const call = plans.berths.calls.find(({ operation }) => operation.operationId === step.call);
  const declared = call?.failures.find(({ status }) => statusCase(status) === name)?.status;
  if (declared !== undefined) return /^\d+$/.test(declared) ? Number(declared) : declared;
  return fails["mishap"] ?? fails["message"];
}
