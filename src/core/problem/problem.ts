import type { ProblemCode } from "./codes.js";
import type { Place } from "./place.js";

/** How much a problem weighs: an error stops something, a warning wants a look, a note only informs. */
export type ProblemLevel = "error" | "warning" | "note";

/** Something to tell the user, as data. Text for people is laid out late, by `core/report`. */
export interface Problem {
  readonly code: ProblemCode;
  readonly level: ProblemLevel;
  /** One full sentence: what is wrong, with the offender quoted. */
  readonly message: string;
  /** All places involved, the one to mend first. */
  readonly places: readonly Place[];
  /** Why it matters, where that is not plain from the message. */
  readonly why?: string;
  /** What to do next. */
  readonly hint?: string;
}

export type ProblemDetails = Partial<Pick<Problem, "level" | "why" | "hint">> & {
  readonly place?: Place | undefined;
  readonly places?: readonly Place[];
};

/** Makes a problem; the level is "error" unless the details say otherwise. */
export function problem(code: ProblemCode, message: string, details: ProblemDetails = {}): Problem {
  const { place, places, level = "error", why, hint } = details;
  return {
    code,
    level,
    message,
    places: places ?? (place ? [place] : []),
    ...(why === undefined ? {} : { why }),
    ...(hint === undefined ? {} : { hint }),
  };
}

/** True when at least one of the problems is an error. */
export function hasErrors(problems: readonly Problem[]): boolean {
  return problems.some((each) => each.level === "error");
}
