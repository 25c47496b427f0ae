import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nullDiffers } from "../../compare/nullDiffers.js";

/** A server may accept more than before. */
export const askNullGained = rule("value", "ask.null.gained", {
  meaning: {
    title: "Null can be sent",
    example: "`ReservationRequest.crew`",
    code: "compatible",
    apps: "compatible",
  },
  find: (point) =>
    point.face === "ask" && nullDiffers(point) && point.after.nullable
      ? { message: `\`${point.subject}\` can now be sent as null.`, verdict: verdicts.harmless }
      : undefined,
});
