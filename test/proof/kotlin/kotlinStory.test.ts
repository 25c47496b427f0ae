import { expect, it } from "vitest";
import { language as typescript } from "../../../src/core/languages/typescript/language.js";
import { playedByKotlin } from "../../languages/story/playedByKotlin.js";
import { playedByScript } from "../../languages/story/playedByScript.js";
import { readStory } from "../../languages/story/storyStep.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";

const story = readStory();

it(`the story of ${String(story.steps.length)} steps is the same in Kotlin as in TypeScript`, async () => {
  if (!canCompileKotlin("the story in Kotlin")) return;
  const wanted = await playedByScript(typescript, story);
  const found = await playedByKotlin(KotlinCompiler.shared(), story);
  expect(found.map((told, at) => ({ step: story.steps[at]?.why, ...told }))).toEqual(
    wanted.map((told, at) => ({ step: story.steps[at]?.why, ...told })),
  );
  expect(found).toHaveLength(story.steps.length);
});
