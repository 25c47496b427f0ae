import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What source asks for by name is not offered any more, and another type comes in its place. */
export const answerMediaGone = rule("answerMedia", "answer.media.gone", {
  meaning: {
    title: "A media type of a response was removed",
    example: "`report` no longer has `text/csv`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before }) => ({ message: `${owner} can no longer return ${before}.`, verdict: verdicts.bothBreak }),
});
