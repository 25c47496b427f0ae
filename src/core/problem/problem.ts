import type { ProblemCode } from "./codes.js";
import type { Place } from "./place.js";

/** The level of a problem: an error stops something, a warning needs a look, a note only informs. */
export type ProblemLevel = "error" | "warning" | "note";

/** Something to report to the user, as data. `core/report` turns it into text. */
export interface Problem {
  readonly code: ProblemCode;
  readonly level: ProblemLevel;
  /** One full sentence: what is wrong, with the value quoted. */
  readonly message: string;
  /** All places involved, the one to fix first. */
  readonly places: readonly Place[];
  /** Why it matters, if the message does not show that. */
  readonly why?: string;
  /** What to do next. */
  readonly hint?: string;
}

export type ProblemDetails = Partial<Pick<Problem, "level" | "why" | "hint">> & {
  readonly place?: Place | undefined;
  readonly places?: readonly Place[];
};

/**
 * Creates a problem.
 *
 * @param message one full sentence
 * @param details the level (default: "error"), places, reason and hint
 */
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

/** Returns whether at least one of the problems is an error. */
export function hasErrors(problems: readonly Problem[]): boolean {
  return problems.some((each) => each.level === "error");
}
