import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A document that uses it is refused. */
export const directiveGone = rule("directive", "directive.gone", {
  meaning: {
    title: "A directive for documents was removed",
    example: "`@lookback`",
    code: "breaking if a document uses it",
    apps: "breaking if a document uses it",
  },
  find: ({ before }) => ({ message: `The directive \`@${before}\` was removed.`, verdict: verdicts.bothBreak }),
});
