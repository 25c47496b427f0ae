import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A document that uses it is refused. */
export const directiveGone = rule("directive", "directive.gone", {
  meaning: {
    title: "A directive that documents may use was removed",
    example: "`@lookback`",
    code: "breaking where a document uses it",
    apps: "breaking where a document uses it",
  },
  find: ({ before }) => ({ message: `The directive \`@${before}\` is gone.`, verdict: verdicts.bothBreak }),
});
