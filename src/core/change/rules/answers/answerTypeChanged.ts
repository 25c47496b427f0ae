import { rule } from "../../rule.js";
import { typeFinding } from "../../typeFinding.js";

/** Only a narrower type is always what was expected before. */
export const answerTypeChanged = rule("value", "answer.type.changed", {
  meaning: {
    title: "An answer has another type",
    example: "`Berth.length` is text instead of a number",
    code: "breaking; integer to number where the language tells them apart",
    apps: "breaking; integer to number risky, breaking when answers are verified",
  },
  find: (point, facts) => (point.face === "answer" ? typeFinding(point, facts) : undefined),
});
