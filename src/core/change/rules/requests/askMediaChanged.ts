import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A released app goes on sending the old one. */
export const askMediaChanged = rule("media", "ask.media.changed", {
  meaning: {
    title: "A body can no longer be sent as the media type it is sent as",
    example: "JSON became multipart",
    code: "compatible unless the body has another type; breaking for one that source chooses",
    apps: "breaking",
  },
  find: ({ owner, usual, offered, isChosen }) =>
    offered.includes(usual)
      ? undefined
      : {
          message: `${owner} no longer takes ${usual} as its body; it takes ${offered.join(", ")}.`,
          verdict: isChosen ? verdicts.bothBreak : verdicts.appsBreak,
        },
});
