import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { limitsChanged } from "../../compare/limitsChanged.js";

/** A server may accept more than before. */
export const askLimitLoosened = rule("value", "ask.limit.loosened", {
  meaning: {
    title: "A limit on values in requests became wider",
    example: "at most 200 items instead of 100",
    code: "compatible",
    apps: "compatible",
  },
  find: (point) => {
    const words = point.face === "ask" ? limitsChanged(point).wider : undefined;
    return words === undefined ? undefined : { message: `\`${point.subject}\`: ${words}.`, verdict: verdicts.harmless };
  },
});
