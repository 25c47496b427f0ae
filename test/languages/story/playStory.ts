import { withControl } from "../vectors/playProgram.js";
import { Recorder } from "./recorder.js";
import type { Told } from "./scriptDriver.js";
import type { storyPlans, storyProject } from "./storyContracts.js";
import type { Story } from "./storyStep.js";
import { toldOf, type ProgramOf } from "./toldOf.js";

/** A story that a compiled program runs. */
export interface PlayedStory {
  readonly story: Story;
  readonly project: ReturnType<typeof storyProject>;
  readonly plans: ReturnType<typeof storyPlans>;
  /** Headers that the language's platform sets itself. */
  readonly platformHeaders: ReadonlySet<string>;
  readonly language: ProgramOf;
}

/**
 * Runs a story with a stand-in server of its own. @param run starts the program, which requests its steps from the
 * address
 */
export async function playStory(
  { story, project, plans, platformHeaders, language }: PlayedStory,
  run: Parameters<typeof withControl>[1],
): Promise<readonly Told[]> {
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
          if (step)
            told.push({ line: JSON.stringify(toldOf(step, said, plans, language)), requests: recorder.requests });
        },
      },
      run,
    );
  } finally {
    recorder.close();
  }
  return told;
}

/** The scalars of the story's schema that are strings. */
export const storyScalars: ReadonlyMap<string, ReadonlyMap<string, string>> = new Map([
  ["passages", new Map(["Day", "Instant"].map((name) => [name, "String"]))],
]);
