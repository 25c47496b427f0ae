import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** A server must not demand more than before. */
export const askBodyNowRequired = rule(
  "body",
  "ask.body.now-required",
  {
    title: "A request body became required, or a required one was added",
    example: "`changeBerth` demands a body",
    code: "breaking",
    apps: "breaking",
  },
  ({ owner, before, after }) =>
    after?.required === true && before?.required !== true
      ? { message: `${owner} now demands ${before ? "its" : "a"} body.`, verdict: verdicts.bothBreak, word: null }
      : undefined,
);
