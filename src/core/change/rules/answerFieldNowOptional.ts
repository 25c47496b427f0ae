import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** An answer must keep what it promised. */
export const answerFieldNowOptional = rule(
  "field",
  "answer.field.now-optional",
  {
    title: "A field may be absent from answers",
    example: "`Berth.quay`",
    code: "breaking",
    apps: "breaking",
  },
  ({ face, subject, before, after }) =>
    face === "answer" && before?.required === true && after?.required === false
      ? {
          message: `\`${subject}\` may now be absent from answers.`,
          verdict: verdicts.bothBreak,
          hint: "Handle its absence where it is read.",
        }
      : undefined,
);
