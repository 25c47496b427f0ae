import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server ignores a body that it does not expect. */
export const askBodyGone = rule("body", "ask.body.gone", {
  meaning: {
    title: "A request body was removed",
    example: "`cancelReservation` has no body",
    code: "breaking",
    apps: "risky",
  },
  find: ({ owner, before, after }) =>
    before && !after
      ? { message: `${owner} no longer accepts a body.`, verdict: verdicts.codeBreaksAppsRisky }
      : undefined,
});
