import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nullDiffers } from "../../compare/nullDiffers.js";

/** Code that handles null still works. */
export const answerNullLost = rule("value", "answer.null.lost", {
  meaning: {
    title: "A value in responses can no longer be null",
    example: "`Voyage.berth`",
    code: "compatible; breaking if your code unwraps it and the language refuses that",
    apps: "compatible; risky in GraphQL, where an error now nulls the parent",
  },
  find: (point, { refusesUnwrapping }) =>
    point.face === "answer" && nullDiffers(point) && !point.after.nullable
      ? {
          message: `\`${point.subject}\` can no longer be null in responses.`,
          // A value that may be absent is still unwrapped. The items of a list are not unwrapped by unwrapping the
          // list.
          ...(refusesUnwrapping && point.mayBeAbsent === false ? { unwrapped: point.coordinates } : {}),
          verdict: point.isGraphql ? verdicts.appsRisky : verdicts.harmless,
        }
      : undefined,
});
