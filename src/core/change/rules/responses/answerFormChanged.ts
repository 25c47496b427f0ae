import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The old SDK reads the form that it was made for. */
export const answerFormChanged = rule("status", "answer.form.changed", {
  meaning: {
    title: "What is answered is written another way",
    example: "JSON became a stream of items",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before, after }) =>
    before && after && before.form !== after.form && before.form !== "none" && after.form !== "none"
      ? {
          message: `${owner} now answers ${after.mediaType ?? after.form}; it was ${before.mediaType ?? before.form}.`,
          verdict: verdicts.bothBreak,
        }
      : undefined,
});
