import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Undeclared keys could be read before, and can no longer be read. */
export const answerKeysGone = rule("record", "answer.keys.gone", {
  meaning: {
    title: "Undeclared fields in responses no longer have a type",
    example: "`Berth` no longer describes its other fields",
    code: "breaking if your code reads them",
    apps: "compatible",
  },
  find: ({ face, subject, before, after, isGraphql }) =>
    face === "answer" && !isGraphql && before.rest !== undefined && after.rest === undefined
      ? {
          message: `\`${subject}\` no longer describes its undeclared fields.`,
          verdict: verdicts.codeBreaks,
          word: null,
        }
      : undefined,
});
