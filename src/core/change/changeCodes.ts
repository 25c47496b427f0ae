import { rules } from "./rules/index.js";

/** The meaning of a change code, with an example. `docs/changes.md` is printed from it. */
export interface ChangeMeaning {
  readonly title: string;
  readonly example: string;
  /** The verdicts for source code and for released apps, in words. */
  readonly code: string;
  readonly apps: string;
}

export type ChangeCode = (typeof rules)[number]["code"];

/** Every change code with its meaning, in the order of the docs. */
export const changeMeanings = Object.fromEntries(
  rules.map(({ code, title, example, words }) => [code, { title, example, ...words }]),
) as Readonly<Record<ChangeCode, ChangeMeaning>>;

/** Returns whether a text is the code of a change. */
export function isChangeCode(code: string): code is ChangeCode {
  return Object.hasOwn(changeMeanings, code);
}

/** Every change code, in the order of the docs. */
export const changeCodes = rules.map(({ code }) => code);
