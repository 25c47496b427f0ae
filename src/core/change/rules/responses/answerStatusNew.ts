import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A call can now have one response or another. */
export const answerStatusNew = rule("status", "answer.status.new", {
  meaning: {
    title: "A successful response with another status and body was added",
    example: "a 202 with a ticket, next to 200",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, role, before, after, isSame }) =>
    role === "success" && !before && after && after.form !== "none"
      ? {
          message: `${owner} can now also succeed with ${after.status}${isSame === true ? "" : " and another body"}.`,
          verdict: isSame === true ? verdicts.appsRisky : verdicts.bothBreak,
        }
      : undefined,
});
