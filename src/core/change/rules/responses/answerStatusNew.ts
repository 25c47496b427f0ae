import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What a call answers can now be one thing or another. */
export const answerStatusNew = rule("status", "answer.status.new", {
  meaning: {
    title: "Success can have another status, with another body",
    example: "a 202 with a ticket beside 200",
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
