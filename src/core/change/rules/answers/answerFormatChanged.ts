import { rule } from "../../rule.js";
import { formatFinding } from "../../formatFinding.js";

/** Another format of the same text is seen by who takes it apart. */
export const answerFormatChanged = rule("value", "answer.format.changed", {
  meaning: {
    title: "A value in responses has another format",
    example: "`Reservation.arrival` is a date-time instead of a date",
    code: "compatible, unless it has another type in the SDK",
    apps: "risky; breaking if the SDK decodes it",
  },
  find: (point, facts) => (point.face === "answer" ? formatFinding(point, facts) : undefined),
});
