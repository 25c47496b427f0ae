import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A request with none or several is refused. */
export const askOneOfNow = rule("record", "ask.one-of.now", {
  meaning: {
    title: "Exactly one field of an input must be set",
    example: "`@oneOf` on `BerthBy`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ face, subject, before, after }) =>
    face === "ask" && before.oneOf !== true && after.oneOf === true
      ? { message: `Exactly one field of \`${subject}\` must now be set.`, verdict: verdicts.bothBreak }
      : undefined,
});
