import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** As with the values of a choice; what is common to all members is what the new one has too. */
export const answerMemberNew = rule(
  "member",
  "answer.member.new",
  {
    title: "Another kind of value can be answered",
    example: "hovercraft",
    code: "risky: an exhaustive match; breaking when it lacks a field that the others have; compatible for open unions, unless a match has to name all members",
    apps: "breaking for closed unions, risky for open ones",
  },
  ({ face, subject, before, after, alone, lacksCommon, isGraphql, coordinates }, { openUnions, matchesAllMembers }) => {
    if (face !== "answer" || after === undefined || before !== undefined) return undefined;
    const message = `\`${subject}\` can now be ${after}.`;
    const hint = "Give every match on it a default branch.";
    if (!isGraphql)
      return {
        message,
        verdict: alone || lacksCommon === true ? verdicts.bothBreak : verdicts.codeRiskyAppsBreak,
        hint,
      };
    if (openUnions) return { message, verdict: matchesAllMembers ? verdicts.bothRisky : verdicts.appsRisky, hint };
    // What a document selects of every member alike is read without asking which one it is.
    const common = coordinates.map((coordinate) => `${coordinate}+`);
    return {
      message,
      verdict: verdicts.codeRiskyAppsBreak,
      hint,
      coordinates: [...coordinates, ...common],
      verdictAt: Object.fromEntries(common.map((each) => [each, verdicts.bothBreak])),
    };
  },
);
