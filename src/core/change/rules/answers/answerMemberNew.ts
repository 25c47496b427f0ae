import { asSelected } from "../../compare/asSelected.js";
import { rule } from "../../rule.js";
import { verdicts, type Verdict } from "../../verdict.js";

/** The same as for the values of an enum. The new member also has the common fields of all members. */
export const answerMemberNew = rule("member", "answer.member.new", {
  meaning: {
    title: "A response can have another member of a union",
    example: "hovercraft",
    code: "risky if a match is exhaustive; breaking if it lacks a field that the others have; compatible for open unions, unless a match must name all members",
    apps: "breaking for closed unions, risky for open ones; compatible in GraphQL if nothing distinguishes it",
  },
  find: (
    { face, subject, before, after, alone, lacksCommon, isGraphql, coordinates, joins },
    { openUnions, opensAllUnions, matchesAllMembers },
  ) => {
    if (face !== "answer" || after === undefined || before !== undefined) return undefined;
    const message = `\`${subject}\` can now be ${after}.`;
    const hint = "Give every match on it a default branch.";
    if (!isGraphql)
      return {
        message,
        verdict: memberVerdict({ alone, lacksCommon: lacksCommon === true, isOpen: opensAllUnions }),
        hint,
        hitsWholeMatches: true,
        spares: alone ? ["shows"] : undefined,
      };
    const verdict = !openUnions
      ? verdicts.codeRiskyAppsBreak
      : matchesAllMembers
        ? verdicts.bothRisky
        : verdicts.appsRisky;
    return { message, verdict, hint, joins, ...asSelected(coordinates, openUnions) };
  },
});

/** @param alone whether the value was not a union before */
function memberVerdict({
  alone,
  lacksCommon,
  isOpen,
}: {
  readonly alone: boolean;
  readonly lacksCommon: boolean;
  readonly isOpen: boolean;
}): Verdict {
  if (alone) return verdicts.bothBreak;
  if (isOpen) return verdicts.bothRisky;
  return lacksCommon ? verdicts.bothBreak : verdicts.codeRiskyAppsBreak;
}
