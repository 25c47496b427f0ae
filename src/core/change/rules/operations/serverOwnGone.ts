import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The connection's option has the contract's name of the server, which is in source. */
export const serverOwnGone = rule("ownServer", "server.own.gone", {
  meaning: {
    title: "The connection no longer has an address for a server",
    example: "no operation has the server `https://files.ostrel.example`",
    code: "breaking if your code sets one",
    apps: "compatible: each operation is rated separately",
  },
  find: ({ before }) => ({
    message: `The connection no longer has an address for \`${before}\`.`,
    verdict: verdicts.codeBreaks,
  }),
});
