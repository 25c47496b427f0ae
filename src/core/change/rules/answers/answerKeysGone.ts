import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What was read by any name is now read by none. */
export const answerKeysGone = rule("record", "answer.keys.gone", {
  meaning: {
    title: "Undeclared fields of an answer no longer have a shape",
    example: "`Berth` no longer says what its other fields are",
    code: "breaking where they are read",
    apps: "compatible",
  },
  find: ({ face, subject, before, after, isGraphql }) =>
    face === "answer" && !isGraphql && before.rest !== undefined && after.rest === undefined
      ? {
          message: `\`${subject}\` no longer says what its undeclared fields are.`,
          verdict: verdicts.codeBreaks,
          word: null,
        }
      : undefined,
});
