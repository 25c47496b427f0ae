import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The field with the old name is removed. */
export const answerFieldRenamed = rule("field", "answer.field.renamed", {
  meaning: {
    title: "A field was removed from responses, and another one may replace it",
    example: "`Berth.draught` is now `depth`",
    code: "breaking",
    apps: "breaking if it was always present",
  },
  find: ({ face, subject, before, successor, isGraphql }) =>
    face === "answer" && before && successor
      ? {
          message: `\`${subject}\` was removed. It may have been renamed to \`${successor.name}\`.`,
          verdict: before.required || isGraphql ? verdicts.bothBreak : verdicts.codeBreaks,
          hint: `Use \`${successor.name}\` if it means the same.`,
        }
      : undefined,
});
