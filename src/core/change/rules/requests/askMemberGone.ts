import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same as for the values of an enum. */
export const askMemberGone = rule("member", "ask.member.gone", {
  meaning: {
    title: "A member of a union can no longer be sent",
    example: "rowing vessels",
    code: "breaking",
    apps: "breaking",
  },
  traits: { isOneOfSeveral: true },
  find: ({ face, subject, before, after }) =>
    face === "ask" && before !== undefined && after === undefined
      ? { message: `\`${subject}\` can no longer be sent as ${before}.`, verdict: verdicts.bothBreak }
      : undefined,
});
