import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same as for the values of an enum. */
export const askMemberNew = rule("member", "ask.member.new", {
  meaning: {
    title: "Another member of a union can be sent",
    example: "hovercraft",
    code: "compatible, unless the language has a type for the union",
    apps: "compatible",
  },
  find: ({ face, subject, before, after, isOtherForm }, { knowsTypesByName }) =>
    face === "ask" && after !== undefined && before === undefined
      ? {
          message: `\`${subject}\` can now be sent as ${after}.`,
          verdict: isOtherForm && knowsTypesByName ? verdicts.codeBreaks : verdicts.harmless,
        }
      : undefined,
});
