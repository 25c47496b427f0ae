import { rule } from "../../rule.js";
import { formatFinding } from "../../formatFinding.js";

/** Another format of the same text is seen by who takes it apart. */
export const answerFormatChanged = rule("value", "answer.format.changed", {
  meaning: {
    title: "An answer has another format",
    example: "`Reservation.arrival` is a moment instead of a day",
    code: "compatible, unless the SDK has another type for it",
    apps: "risky, breaking where the SDK decodes it",
  },
  find: (point, facts) => (point.face === "answer" ? formatFinding(point, facts) : undefined),
});
