import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The call for single items existed because the contract offered them. */
export const answerStreamGone = rule("stream", "answer.stream.gone", {
  meaning: {
    title: "An operation no longer has a stream next to its whole response",
    example: "`readLogStream` was removed",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before }) => ({
    message: `${owner} no longer has a stream, so \`${before}\` was removed.`,
    verdict: verdicts.bothBreak,
  }),
});
