import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The same shape under another name is another type to a language that knows types by their names. */
export const typeOther = rule("spelling", "type.other", {
  meaning: {
    title: "A value has another type of the SDK",
    example: "`Reservation.vessel` is a `ReservationVessel`, no longer a `VesselSummary`",
    code: "breaking where it is handed on as the old type, or built; risky where a member of a union is sent; compatible where a language knows types by their shape",
    apps: "compatible",
  },
  find: ({ subject, face, before, after, isMarked, isUnion }, { knowsTypesByName }) =>
    knowsTypesByName
      ? {
          message: `\`${subject}\` is a \`${after}\` in source; it was a \`${before}\`.`,
          verdict: face === "ask" && isUnion === true ? verdicts.codeRisky : verdicts.codeBreaks,
          hitsNamedTypes: isMarked !== true,
        }
      : undefined,
});
