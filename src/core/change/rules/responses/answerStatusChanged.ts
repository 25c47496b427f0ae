import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** An undeclared success is read as the declared one. */
export const answerStatusChanged = rule("status", "answer.status.changed", {
  meaning: {
    title: "A successful response has another status and the same body",
    example: "200 became 201",
    code: "compatible",
    apps: "risky",
  },
  find: ({ owner, role, before, after }) =>
    role === "success" &&
    before &&
    after &&
    before.status !== after.status &&
    (before.form === "none") === (after.form === "none")
      ? {
          message: `${owner} now succeeds with ${after.status} instead of ${before.status}.`,
          verdict: verdicts.appsRisky,
        }
      : undefined,
});
