import { describe, expect, it } from "vitest";
import { language as javascript } from "../../src/core/languages/javascript/language.js";
import type { Language } from "../../src/core/languages/language.js";
import { language as typescript } from "../../src/core/languages/typescript/language.js";
import { readStory } from "./story/storyStep.js";
import { playedByScript } from "./story/playedByScript.js";
import type { Told } from "./story/scriptDriver.js";

const story = readStory();
const scripts: readonly Language[] = [typescript, javascript];

describe("the story", () => {
  it(`of ${String(story.steps.length)} steps is the same in every language`, async () => {
    const told = new Map<string, readonly Told[]>();
    for (const language of scripts) told.set(language.id, await playedByScript(language, story));
    const [first = [], ...others] = told.values();
    first.forEach(({ line, requests }, at) => {
      const { why, fails, requests: count = requests.length } = story.steps[at] ?? {};
      const ended = JSON.parse(line) as { readonly fails?: { readonly status: number | string } };
      expect([why, line, ended.fails?.status, requests.length]).toEqual([why, line, fails, count]);
    });
    for (const other of others)
      first.forEach((one, at) => {
        expect({ step: story.steps[at]?.why, ...other[at] }).toEqual({ step: story.steps[at]?.why, ...one });
      });
    expect(first.length).toBeGreaterThanOrEqual(60);
  });
});
