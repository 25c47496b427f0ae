import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";
import { nullDiffers } from "../nullDiffers.js";

/** Who reads it does not expect null. */
export const answerNullGained = rule(
  "value",
  "answer.null.gained",
  {
    title: "An answer can be null",
    example: "`Voyage.from`",
    code: "breaking",
    apps: "breaking",
  },
  (point) =>
    point.face === "answer" && nullDiffers(point) && point.after.nullable
      ? {
          message: `\`${point.subject}\` can now be null in answers.`,
          verdict: verdicts.bothBreak,
          hint: "Handle null where it is read.",
        }
      : undefined,
);
