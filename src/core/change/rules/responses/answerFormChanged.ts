import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The old SDK reads the old form. */
export const answerFormChanged = rule("status", "answer.form.changed", {
  meaning: {
    title: "A response is sent in another form",
    example: "JSON became a stream of items",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before, after }) =>
    before && after && before.form !== after.form && before.form !== "none" && after.form !== "none"
      ? {
          message: `${owner} now returns ${after.mediaType ?? after.form} instead of ${before.mediaType ?? before.form}.`,
          verdict: verdicts.bothBreak,
        }
      : undefined,
});
