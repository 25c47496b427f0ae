import { rule } from "../../rule.js";
import { addressOf, isElsewhere } from "../../compare/serverAddress.js";
import { verdicts } from "../../verdict.js";

/** Requests, with their credentials, go to another origin. Whoever updates the SDK must see that. */
export const serverElsewhere = rule("servers", "server.elsewhere", {
  meaning: {
    title: "Calls go to another origin",
    example: "`GET /photos` has the server `https://files.ostrel.example`",
    code: "breaking, because calls and credentials go to another server; compatible if the app sets the base URL",
    apps: "breaking, with the same exception",
  },
  find: ({ subject, before, after, isOwn }, { suppliesBaseUrl }) => {
    const [from, to] = [addressOf(before), addressOf(after)];
    if (!isElsewhere(from, to, isOwn)) return undefined;
    const was = from.origin === undefined ? "the address that the app supplies" : `\`${from.origin}${from.path}\``;
    return {
      message: `${isOwn ? subject : "The contract"} now sends calls to \`${to.origin ?? ""}${to.path}\` instead of ${was}.`,
      verdict: suppliesBaseUrl && !isOwn ? verdicts.harmless : verdicts.bothBreak,
      hint: "Check who runs that server. If the address is right, set it on the connection.",
    };
  },
});
