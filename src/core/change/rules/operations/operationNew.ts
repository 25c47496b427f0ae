import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Nobody calls a new operation yet. */
export const operationNew = rule("operation", "operation.new", {
  meaning: {
    title: "An operation was added",
    example: "`GET /moorings`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ subject, before, after }) =>
    after && !before ? { message: `${subject} was added.`, verdict: verdicts.harmless } : undefined,
});
