import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A closed enum promises that no other values come. An open one can carry a new value. */
export const answerChoiceNew = rule("choice", "answer.choice.new", {
  meaning: {
    title: "A response can have another enum value",
    example: "status `dredging`",
    code: "risky if a match is exhaustive; compatible for open enums",
    apps: "breaking for closed enums, risky for open ones",
  },
  find: ({ face, subject, before, after }, { openChoices }) =>
    face === "answer" && after !== undefined && before === undefined
      ? {
          message: `\`${subject}\` can now be \`${String(after)}\` in responses.`,
          verdict: openChoices ? verdicts.appsRisky : verdicts.codeRiskyAppsBreak,
          hitsWholeMatches: true,
          hint: "Give every match on it a default branch.",
        }
      : undefined,
});
