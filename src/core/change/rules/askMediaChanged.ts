import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** A released app goes on sending the old one. */
export const askMediaChanged = rule(
  "media",
  "ask.media.changed",
  {
    title: "A body can no longer be sent as the media type it is sent as",
    example: "JSON became multipart",
    code: "compatible unless the body has another type",
    apps: "breaking",
  },
  ({ owner, usual, offered }) =>
    offered.includes(usual)
      ? undefined
      : { message: `${owner} now takes ${offered.join(", ")}; it was ${usual}.`, verdict: verdicts.appsBreak },
);
