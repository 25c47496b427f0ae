import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The media type in source is no longer offered, and another type comes in its place. */
export const answerMediaGone = rule("answerMedia", "answer.media.gone", {
  meaning: {
    title: "A media type of a response was removed",
    example: "`report` no longer has `text/csv`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before }) => ({ message: `${owner} can no longer return ${before}.`, verdict: verdicts.bothBreak }),
});
