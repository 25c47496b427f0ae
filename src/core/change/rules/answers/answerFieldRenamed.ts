import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Under its old name it is gone. */
export const answerFieldRenamed = rule("field", "answer.field.renamed", {
  meaning: {
    title: "A field is gone, and another one perhaps came for it",
    example: "`Berth.draught` is now `depth`",
    code: "breaking",
    apps: "breaking when it was always there",
  },
  find: ({ face, subject, before, successor, isGraphql }) =>
    face === "answer" && before && successor
      ? {
          message: `\`${subject}\` is gone; perhaps it is now called \`${successor.name}\`.`,
          verdict: before.required || isGraphql ? verdicts.bothBreak : verdicts.codeBreaks,
          hint: `Use \`${successor.name}\` if it says the same.`,
        }
      : undefined,
});
