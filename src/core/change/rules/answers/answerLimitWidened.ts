import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { limitsChanged } from "../../compare/limitsChanged.js";

/** Ranges are not validated, but no app has seen such a value before. */
export const answerLimitWidened = rule("value", "answer.limit.widened", {
  meaning: {
    title: "A limit on values in responses became wider",
    example: "`level` up to 12 instead of 9",
    code: "compatible",
    apps: "risky",
  },
  find: (point) => {
    const words = point.face === "answer" ? limitsChanged(point).wider : undefined;
    return words === undefined
      ? undefined
      : { message: `\`${point.subject}\`: ${words}.`, verdict: verdicts.appsRisky };
  },
});
