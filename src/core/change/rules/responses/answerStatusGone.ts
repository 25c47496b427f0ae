import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Fewer responses are possible than before. */
export const answerStatusGone = rule("status", "answer.status.gone", {
  meaning: {
    title: "One of several successful responses was removed",
    example: "only 200, without 202",
    code: "risky: your code may tell the two apart",
    apps: "compatible",
  },
  find: ({ owner, role, before, after }) =>
    role === "success" && before && !after
      ? { message: `${owner} no longer succeeds with ${before.status}.`, verdict: verdicts.codeRisky }
      : undefined,
});
