import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nullDiffers } from "../../compare/nullDiffers.js";

/** Code that reads the value does not expect null. */
export const answerNullGained = rule("value", "answer.null.gained", {
  meaning: {
    title: "A value in responses can be null",
    example: "`Voyage.from`",
    code: "breaking; compatible if it could be absent and the language does not tell the two apart",
    apps: "breaking, with the same exception",
  },
  find: (point, { tellsAbsentFromNull }) =>
    point.face === "answer" && nullDiffers(point) && point.after.nullable
      ? {
          message: `\`${point.subject}\` can now be null in responses.`,
          // Source that does not distinguish null from absent gets nothing that it could not get before.
          verdict: point.mayBeAbsent === true && !tellsAbsentFromNull ? verdicts.harmless : verdicts.bothBreak,
          spares: ["shows", "compares"],
          // For a field: the items of a list may be null whatever the list is.
          isOfNull: point.mayBeAbsent !== undefined,
          hint: "Handle null wherever your code reads it.",
        }
      : undefined,
});
