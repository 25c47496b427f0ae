import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";
import { nullDiffers } from "../nullDiffers.js";

/** Who handles null goes on doing so. */
export const answerNullLost = rule(
  "value",
  "answer.null.lost",
  {
    title: "An answer can no longer be null",
    example: "`Voyage.berth`",
    code: "compatible",
    apps: "compatible; risky in GraphQL, where an error now nulls the parent",
  },
  (point) =>
    point.face === "answer" && nullDiffers(point) && !point.after.nullable
      ? {
          message: `\`${point.subject}\` is never null in answers any more.`,
          verdict: point.isGraphql ? verdicts.appsRisky : verdicts.harmless,
        }
      : undefined,
);
