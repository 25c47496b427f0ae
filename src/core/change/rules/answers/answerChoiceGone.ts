import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { ofValue, withValue } from "../../compare/withValue.js";

/** Less can come than before; the compiler refuses to compare with what cannot be. */
export const answerChoiceGone = rule("choice", "answer.choice.gone", {
  meaning: {
    title: "A choice is no longer answered",
    example: "status `reserved`",
    code: "breaking where it is compared, compatible for open choices",
    apps: "compatible",
  },
  traits: { isOneOfSeveral: true },
  find: ({ face, subject, before, after, coordinates }, { openChoices, choicesArePlain }) =>
    face === "answer" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` never answers \`${String(before)}\` any more.`,
          verdict: openChoices && choicesArePlain ? verdicts.harmless : verdicts.codeBreaks,
          coordinates: choicesArePlain ? withValue(coordinates, before) : ofValue(coordinates, before),
        }
      : undefined,
});
