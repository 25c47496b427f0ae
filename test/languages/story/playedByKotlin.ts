import { readFileSync } from "node:fs";
import { join } from "node:path";
import { contractContext, type ContractContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { statusClass } from "../../../src/core/languages/kotlin/statusClass.js";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { seenInKotlin } from "../kotlin/seenInKotlin.js";
import { withControl } from "../vectors/playProgram.js";
import type { Data } from "../vectors/vectorRow.js";
import { inContractOrder } from "./contractOrder.js";
import { printStory } from "./kotlinStory.js";
import { Recorder } from "./recorder.js";
import { callOf, kindOf, type Told } from "./scriptDriver.js";
import { storyPlans, storyProject } from "./storyContracts.js";
import type { Story, StoryStep } from "./storyStep.js";

type Fields = Readonly<Record<string, Data>>;

/** Headers that OkHttp sets by itself. */
const platformHeaders: ReadonlySet<string> = new Set([
  "accept-encoding",
  "connection",
  "content-length",
  "host",
  "transfer-encoding",
  "user-agent",
]);

/** Plays the story with an SDK in Kotlin, against a stand-in of its own. */
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
  const scalars = new Map([["passages", new Map(["Day", "Instant"].map((name) => [name, "String"]))]]);
  const files = printLowered(language, sdk, { runtime, scalars, settings });
  const contexts: ContractContext[] = sdk.contracts.map((contract) =>
    contractContext(contract, "app", {
      scalars: scalars.get(contract.plan.name) ?? new Map<string, string>(),
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
      (control) => compiler.run("app.StoryKt", [compiled.classes], [control]),
    );
  } finally {
    recorder.close();
  }
  return told;
}

const mishaps: Readonly<Record<string, string>> = {
  Unexpected: "unexpected",
  Malformed: "malformed",
  Unreachable: "unreachable",
  TimedOut: "timed-out",
};

/** What the program saw in a step, as every language tells it. */
function lineOf(step: StoryStep, said: Fields, plans: ReturnType<typeof storyPlans>): object {
  const plan = step.contract === "berths" ? plans.berths : plans.passages;
  const { answer, item } = callOf(plan, step.call);
  const of = step.isPaged === true ? item : answer;
  const tell = (value: Data): unknown => inContractOrder(seenInKotlin(value, of, plan.types), of, plan.types);
  const items = said["isFlow"] === true ? (said["gives"] as readonly Data[]).map(tell) : undefined;
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
  if (name === "Aborted" || name === "Errors") return name.toLowerCase();
  const call = plans.berths.calls.find(({ operation }) => operation.operationId === step.call);
  const declared = call?.failures.find(({ status }) => statusClass(status) === name)?.status;
  if (declared !== undefined) return /^\d+$/.test(declared) ? Number(declared) : declared;
  return mishaps[fails["mishap"] as string] ?? fails["message"];
}
