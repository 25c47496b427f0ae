import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A response must keep its promises. A field that could be absent anyway is just absent. */
export const answerFieldGone = rule("field", "answer.field.gone", {
  meaning: {
    title: "A field was removed from responses",
    example: "`Berth.note`",
    code: "breaking",
    apps: "breaking if it was always present",
  },
  find: ({ face, subject, before, after, successor, isGraphql }) =>
    face === "answer" && before && !after && !successor
      ? {
          message: `\`${subject}\` was removed from responses.`,
          verdict: before.required || isGraphql ? verdicts.bothBreak : verdicts.codeBreaks,
        }
      : undefined,
});
