import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { limitsChanged } from "../../compare/limitsChanged.js";

/** Fewer values are possible than before. */
export const answerLimitNarrowed = rule("value", "answer.limit.narrowed", {
  meaning: {
    title: "A limit on values in responses became narrower",
    example: "`level` up to 8 instead of 9",
    code: "compatible",
    apps: "compatible",
  },
  find: (point) => {
    const words = point.face === "answer" ? limitsChanged(point).tighter : undefined;
    return words === undefined ? undefined : { message: `\`${point.subject}\`: ${words}.`, verdict: verdicts.harmless };
  },
});
