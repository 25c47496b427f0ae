import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nullDiffers } from "../../compare/nullDiffers.js";

/** A request with null is refused. */
export const askNullLost = rule("value", "ask.null.lost", {
  meaning: {
    title: "Null can no longer be sent",
    example: "`BerthChange.note`",
    code: "breaking",
    apps: "breaking",
  },
  find: (point) =>
    point.face === "ask" && nullDiffers(point) && !point.after.nullable
      ? {
          message: `\`${point.subject}\` can no longer be sent as null.`,
          verdict: verdicts.bothBreak,
          hint: "Omit it, or send a value.",
        }
      : undefined,
});
