import { rule } from "../../rule.js";
import { typeFinding } from "../../typeFinding.js";

/** Only a narrower type always matches the old one. */
export const answerTypeChanged = rule("value", "answer.type.changed", {
  meaning: {
    title: "A value in responses has another type",
    example: "`Berth.length` is a string instead of a number",
    code: "breaking; integer to number only if the language distinguishes them",
    apps: "breaking; integer to number is risky, or breaking if responses are verified",
  },
  find: (point, facts) => (point.face === "answer" ? typeFinding(point, facts) : undefined),
});
