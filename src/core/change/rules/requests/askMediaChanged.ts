import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A released app still sends the old one. */
export const askMediaChanged = rule("media", "ask.media.changed", {
  meaning: {
    title: "A body can no longer be sent with its media type",
    example: "JSON became multipart",
    code: "compatible, unless the body has another type; breaking if your code selects the type",
    apps: "breaking",
  },
  find: ({ owner, usual, offered, isChosen }) =>
    offered.includes(usual)
      ? undefined
      : {
          message: `${owner} no longer accepts ${usual} as its body, only ${offered.join(", ")}.`,
          verdict: isChosen ? verdicts.bothBreak : verdicts.appsBreak,
        },
});
