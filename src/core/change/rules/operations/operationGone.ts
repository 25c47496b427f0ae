import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What can no longer be called breaks whoever calls it. */
export const operationGone = rule("operation", "operation.gone", {
  meaning: {
    title: "An operation was removed",
    example: "`DELETE /berths/{berthId}` is no longer there",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ subject, before, after }) =>
    before && !after ? { message: `${subject} is gone.`, verdict: verdicts.bothBreak } : undefined,
});
