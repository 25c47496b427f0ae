import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A success must stay a success with the same body. */
export const answerBodyChanged = rule("status", "answer.body.changed", {
  meaning: {
    title: "A successful response has a body now, or no longer has one",
    example: "200 with a body became 204",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, role, before, after, isStream }) => {
    if (role !== "success" || !after) return undefined;
    if (!before) {
      const message = `${owner} can now also succeed with ${after.status} and no body.`;
      // A stream without a body has no items, and is read like any other body.
      return after.form === "none"
        ? { message, verdict: isStream ? verdicts.appsRisky : verdicts.bothBreak }
        : undefined;
    }
    const had = before.form !== "none";
    if (had === (after.form !== "none")) return undefined;
    const message = `${owner} ${had ? "no longer returns a body" : "now returns a body"} (${before.status}, now ${after.status}).`;
    return { message, verdict: had ? verdicts.bothBreak : verdicts.harmless };
  },
});
