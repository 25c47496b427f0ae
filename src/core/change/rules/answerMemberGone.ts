import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** As with the values of a choice. */
export const answerMemberGone = rule(
  "member",
  "answer.member.gone",
  {
    title: "A kind of value is no longer answered",
    example: "rowing vessels",
    code: "breaking where its fields are matched, else risky",
    apps: "compatible",
  },
  ({ face, subject, before, after, isRecord, isGraphql }) =>
    face === "answer" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` can no longer be ${before}.`,
          verdict: isRecord === true || isGraphql ? verdicts.codeBreaks : verdicts.codeRisky,
        }
      : undefined,
);
