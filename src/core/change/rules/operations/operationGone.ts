import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A removed operation breaks everyone who calls it. */
export const operationGone = rule("operation", "operation.gone", {
  meaning: {
    title: "An operation was removed",
    example: "`DELETE /berths/{berthId}` was removed",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ subject, before, after }) =>
    before && !after ? { message: `${subject} was removed.`, verdict: verdicts.bothBreak } : undefined,
});
