import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Less can happen than before. */
export const answerStatusGone = rule("status", "answer.status.gone", {
  meaning: {
    title: "One of several successes is no longer answered",
    example: "no 202 any more beside 200",
    code: "risky: what told the two apart",
    apps: "compatible",
  },
  find: ({ owner, role, before, after }) =>
    role === "success" && before && !after
      ? { message: `${owner} no longer succeeds with ${before.status}.`, verdict: verdicts.codeRisky }
      : undefined,
});
