import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Only an SDK that allows undeclared fields ever sends them. */
export const askKeysForbidden = rule("record", "ask.keys.forbidden", {
  meaning: {
    title: "Undeclared fields can no longer be sent",
    example: "`BerthChange` allows only its own fields",
    code: "breaking if other fields could be sent",
    apps: "breaking if other fields could be sent",
  },
  find: ({ face, subject, before, after, isGraphql }) =>
    face === "ask" && !isGraphql && before.rest !== undefined && after.rest === undefined
      ? {
          message: `\`${subject}\` no longer accepts undeclared fields.`,
          verdict: after.closed === true ? verdicts.bothBreak : verdicts.codeBreaksAppsRisky,
          word: null,
        }
      : undefined,
});
