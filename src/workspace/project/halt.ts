import type { Problem } from "../../core/problem/problem.js";

export const exitCodes = { done: 0, findings: 1, usage: 2, unreadable: 3, defect: 70 } as const;
export type ExitCode = (typeof exitCodes)[keyof typeof exitCodes];

/** Ends a command with problems to report. */
export class Halt extends Error {
  constructor(
    readonly problems: readonly Problem[],
    readonly exitCode: ExitCode,
    /** The texts of the documents in which the problems are. */
    readonly texts: ReadonlyMap<string, string> = new Map(),
  ) {
    super(problems.map((each) => each.message).join("\n"));
    this.name = "Halt";
  }
}
