import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { limitsChanged } from "../../compare/limitsChanged.js";

/** A tighter limit refuses requests that were valid. */
export const askLimitTightened = rule("value", "ask.limit.tightened", {
  meaning: {
    title: "A limit on values in requests became narrower",
    example: "at most 50 items instead of 100",
    code: "compatible",
    apps: "breaking",
  },
  find: (point) => {
    const words = point.face === "ask" ? limitsChanged(point).tighter : undefined;
    return words === undefined
      ? undefined
      : { message: `\`${point.subject}\`: ${words}.`, verdict: verdicts.appsBreak };
  },
});
