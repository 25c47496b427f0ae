import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What source asks for by name is not offered any more, and another type comes in its place. */
export const answerMediaGone = rule("answerMedia", "answer.media.gone", {
  meaning: {
    title: "An answer can no longer be asked for as a media type",
    example: "`report` lost `text/csv`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before }) => ({ message: `${owner} can no longer answer ${before}.`, verdict: verdicts.bothBreak }),
});
