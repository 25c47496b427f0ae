import { rule } from "../../rule.js";
import { formatFinding } from "../../formatFinding.js";

/** The server refuses the old spelling. */
export const askFormatChanged = rule("value", "ask.format.changed", {
  meaning: {
    title: "What is sent has another format",
    example: "`arrival` is a moment instead of a day",
    code: "compatible, unless the SDK has another type for it",
    apps: "breaking, unless the format is dropped or wider",
  },
  find: (point, facts) => (point.face === "ask" ? formatFinding(point, facts) : undefined),
});
