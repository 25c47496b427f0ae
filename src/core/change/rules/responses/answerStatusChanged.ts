import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** An undeclared success is read as the declared one. */
export const answerStatusChanged = rule("status", "answer.status.changed", {
  meaning: {
    title: "Success has another status with the same body",
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
      ? { message: `${owner} now succeeds with ${after.status}; it was ${before.status}.`, verdict: verdicts.appsRisky }
      : undefined,
});
