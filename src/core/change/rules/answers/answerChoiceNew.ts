import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A closed choice promises that nothing else comes; an open one carries what is new. */
export const answerChoiceNew = rule("choice", "answer.choice.new", {
  meaning: {
    title: "Another choice can be answered",
    example: "status `dredging`",
    code: "risky: an exhaustive match; compatible for open choices",
    apps: "breaking for closed choices, risky for open ones",
  },
  find: ({ face, subject, before, after }, { openChoices }) =>
    face === "answer" && after !== undefined && before === undefined
      ? {
          message: `\`${subject}\` can now answer \`${String(after)}\`.`,
          verdict: openChoices ? verdicts.appsRisky : verdicts.codeRiskyAppsBreak,
          hitsWholeMatches: true,
          hint: "Give every match on it a default branch.",
        }
      : undefined,
});
