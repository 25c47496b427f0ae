import { expect, it } from "vitest";
import { holdsTrue } from "./holdsTrue.js";

it("the predicted impact of a change matches compilers and released apps", async () => {
  const { cases } = await holdsTrue({ singles: 226, several: 0, appEvery: 7 }, { breaking: 60, wrong: 1 });
  expect(new Set(cases.map(({ base }) => base)).size).toBe(6);
});
