import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** As with the values of a choice; what is common to all members is what the new one has too. */
export const answerMemberNew = rule(
  "member",
  "answer.member.new",
  {
    title: "Another kind of value can be answered",
    example: "hovercraft",
    code: "risky: an exhaustive match; breaking when it lacks a field that the others have; compatible for open unions",
    apps: "breaking for closed unions, risky for open ones",
  },
  ({ face, subject, before, after, alone, lacksCommon, isGraphql }, { openUnions }) => {
    if (face !== "answer" || after === undefined || before !== undefined) return undefined;
    const message = `\`${subject}\` can now be ${after}.`;
    const hint = "Give every match on it a default branch.";
    if (isGraphql && openUnions) return { message, verdict: verdicts.appsRisky, hint };
    return { message, verdict: alone || lacksCommon === true ? verdicts.bothBreak : verdicts.codeRiskyAppsBreak, hint };
  },
);
