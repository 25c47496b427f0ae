import { rule } from "../../rule.js";
import { formatFinding } from "../../formatFinding.js";

/** Code that parses the string sees another format of the same value. */
export const answerFormatChanged = rule("value", "answer.format.changed", {
  meaning: {
    title: "A value in responses has another format",
    example: "`Reservation.arrival` is a date-time instead of a date",
    code: "compatible, unless it has another type in the SDK",
    apps: "risky; breaking if the SDK decodes it",
  },
  find: (point, facts) => (point.face === "answer" ? formatFinding(point, facts) : undefined),
});
