import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The connection takes other addresses by what the contract calls the server, which source then says. */
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
