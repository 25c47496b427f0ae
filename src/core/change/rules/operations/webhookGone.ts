import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The app's own server receives requests that the server sends on its own. */
export const webhookGone = rule("sent", "webhook.gone", {
  meaning: {
    title: "The server no longer sends a request",
    example: "the webhook `berthFreed`",
    code: "breaking if your code names its type",
    apps: "risky: the app waits for a request that never comes",
  },
  find: ({ before, after }) =>
    before && !after
      ? { message: `The server no longer sends \`${before.name}\`.`, verdict: verdicts.codeBreaksAppsRisky }
      : undefined,
});
