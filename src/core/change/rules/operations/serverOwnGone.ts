import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The connection takes other addresses by what the contract calls the server, which source then says. */
export const serverOwnGone = rule("ownServer", "server.own.gone", {
  meaning: {
    title: "The connection no longer takes another address for a server",
    example: "no operation has the server `https://files.ostrel.example` any more",
    code: "breaking where source gives one",
    apps: "compatible: where each operation is sent is judged by itself",
  },
  find: ({ before }) => ({
    message: `The connection no longer takes another address for \`${before}\`.`,
    verdict: verdicts.codeBreaks,
  }),
});
