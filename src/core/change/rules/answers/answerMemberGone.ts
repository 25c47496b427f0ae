import { bridgeOf, printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same as for the values of an enum. */
export const answerMemberGone = rule("member", "answer.member.gone", {
  meaning: {
    title: "A response can no longer have a member of a union",
    example: "rowing vessels",
    code: "breaking if your code matches its fields, or the language has a type for the union; else risky",
    apps: "compatible; breaking in GraphQL if a document names it",
  },
  find: (
    { face, subject, before, after, isRecord, isOtherForm, isGraphql, key, coordinates },
    { knowsTypesByName },
  ) => {
    if (face !== "answer" || before === undefined || after !== undefined) return undefined;
    const message = `\`${subject}\` can no longer be ${before}.`;
    const isBroken = isRecord === true || (isOtherForm && knowsTypesByName);
    if (!isGraphql) return { message, verdict: isBroken ? verdicts.codeBreaks : verdicts.codeRisky };
    // A document that names the removed type is refused. Other documents never get the type.
    const bridges = coordinates.map((coordinate) => bridgeOf(key ?? "", coordinate));
    return {
      message,
      verdict: verdicts.codeBreaks,
      coordinates: [...coordinates.map((coordinate) => printCoordinate(coordinate, "toldApart")), ...bridges],
      verdictAt: new Map(bridges.map((bridge) => [bridge, verdicts.bothBreak])),
    };
  },
});
