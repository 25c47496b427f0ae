import { expect, it } from "vitest";
import { holdsTrue } from "./holdsTrue.js";

it("what is predicted of a changed contract is what compilers and released apps then say", async () => {
  const { cases } = await holdsTrue({ singles: 226, several: 0, appEvery: 7 }, { breaking: 60, wrong: 1 });
  expect(new Set(cases.map(({ base }) => base)).size).toBe(6);
});
