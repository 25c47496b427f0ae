import { expect, it } from "vitest";
import { language as typescript } from "../../../src/core/languages/typescript/language.js";
import { playedByScript } from "../../languages/story/playedByScript.js";
import { playedBySwift } from "../../languages/story/playedBySwift.js";
import { readStory } from "../../languages/story/storyStep.js";
import { canCompileSwift } from "../../support/swift/swiftCompiler.js";

const story = readStory();

it(`the story of ${String(story.steps.length)} steps is the same in Swift as in TypeScript`, async () => {
  if (!canCompileSwift("the story in Swift")) return;
  const wanted = await playedByScript(typescript, story);
  const found = await playedBySwift(story);
  expect(found.map((told, at) => ({ step: story.steps[at]?.why, ...told }))).toEqual(
    wanted.map((told, at) => ({ step: story.steps[at]?.why, ...told })),
  );
  expect(found).toHaveLength(story.steps.length);
});
