import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** An answer must keep what it promised; what could be absent anyway is just absent. */
export const answerFieldGone = rule("field", "answer.field.gone", {
  meaning: {
    title: "A field is no longer answered",
    example: "`Berth.note`",
    code: "breaking",
    apps: "breaking when it was always there",
  },
  find: ({ face, subject, before, after, successor, isGraphql }) =>
    face === "answer" && before && !after && !successor
      ? {
          message: `\`${subject}\` is no longer answered.`,
          verdict: before.required || isGraphql ? verdicts.bothBreak : verdicts.codeBreaks,
        }
      : undefined,
});
