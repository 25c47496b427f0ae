import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same shape with another name is another type in languages that distinguish types by name. */
export const typeOther = rule("spelling", "type.other", {
  meaning: {
    title: "A value has another type in the SDK",
    example: "`Reservation.vessel` is a `ReservationVessel` instead of a `VesselSummary`",
    code: "breaking if your code passes it on as the old type, or builds it; risky if a member of a union is sent; compatible if the language compares types by structure",
    apps: "compatible",
  },
  find: ({ subject, face, before, after, isMarked, isUnion }, { knowsTypesByName }) =>
    knowsTypesByName
      ? {
          message: `\`${subject}\` is now a \`${after}\` in your code instead of a \`${before}\`.`,
          verdict: face === "ask" && isUnion === true ? verdicts.codeRisky : verdicts.codeBreaks,
          hitsNamedTypes: isMarked !== true,
        }
      : undefined,
});
