import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { ofValue, withValue } from "../../compare/withValue.js";

/** Fewer values are possible than before. The compiler refuses a comparison with an impossible one. */
export const answerChoiceGone = rule("choice", "answer.choice.gone", {
  meaning: {
    title: "A response can no longer have an enum value",
    example: "status `reserved`",
    code: "breaking if your code compares it; compatible for open enums",
    apps: "compatible",
  },
  traits: { isOneOfSeveral: true },
  find: ({ face, subject, before, after, coordinates }, { openChoices, choicesArePlain }) =>
    face === "answer" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` can no longer be \`${String(before)}\` in responses.`,
          verdict: openChoices && choicesArePlain ? verdicts.harmless : verdicts.codeBreaks,
          coordinates: choicesArePlain ? withValue(coordinates, before) : ofValue(coordinates, before),
        }
      : undefined,
});
