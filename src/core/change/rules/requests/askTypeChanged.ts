import { rule } from "../../rule.js";
import { typeFinding } from "../../typeFinding.js";

/** Only a wider type accepts everything that was sent before. */
export const askTypeChanged = rule("value", "ask.type.changed", {
  meaning: {
    title: "A value in requests has another type",
    example: "`crew` is a string instead of an integer",
    code: "breaking",
    apps: "breaking",
  },
  find: (point, facts) => (point.face === "ask" ? typeFinding(point, facts) : undefined),
});
