import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** More is promised than before; only who builds an answer has to keep it. */
export const answerFieldNowAlways = rule(
  "field",
  "answer.field.now-always",
  {
    title: "A field is always there in answers",
    example: "`BerthPage.total`",
    code: "risky for hand-built answers",
    apps: "compatible",
  },
  ({ face, subject, before, after, coordinates, isGraphql }) =>
    face === "answer" && before?.required === false && after?.required === true
      ? {
          message: `\`${subject}\` is always there now.`,
          verdict: verdicts.codeRisky,
          ...(isGraphql ? {} : { coordinates: coordinates.map((each) => `${each}?`), word: null }),
        }
      : undefined,
);
