import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Nobody has registered for it yet. */
export const webhookNew = rule("sent", "webhook.new", {
  meaning: {
    title: "The server sends a new request",
    example: "the webhook `berthFreed`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ before, after }) =>
    after && !before
      ? { message: `The server can now send \`${after.name}\`.`, verdict: verdicts.harmless }
      : undefined,
});
