import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What the connection is given has a name in source; the wire does not know it. */
export const authSchemeGone = rule("scheme", "auth.scheme.gone", {
  meaning: {
    title: "The connection no longer takes a credential",
    example: "`harbourToken` is now called `token`",
    code: "breaking where the connection is given it",
    apps: "compatible: each operation is judged by itself",
  },
  find: ({ before, after }) =>
    after
      ? undefined
      : {
          message: `The connection no longer takes the credential \`${before}\`.`,
          verdict: verdicts.codeBreaks,
        },
});
