import { rule } from "../../rule.js";
import { formatFinding } from "../../formatFinding.js";

/** The server refuses the old spelling. */
export const askFormatChanged = rule("value", "ask.format.changed", {
  meaning: {
    title: "A value in requests has another format",
    example: "`arrival` is a date-time instead of a date",
    code: "compatible, unless it has another type in the SDK",
    apps: "breaking, unless the format was removed or is wider",
  },
  find: (point, facts) => (point.face === "ask" ? formatFinding(point, facts) : undefined),
});
