import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The call that went through the items was made because the contract offered them. */
export const answerStreamGone = rule("stream", "answer.stream.gone", {
  meaning: {
    title: "An operation that answers as a whole no longer answers item by item too",
    example: "`readLogStream` is gone",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before }) => ({
    message: `${owner} no longer answers item by item, so \`${before}\` is gone.`,
    verdict: verdicts.bothBreak,
  }),
});
