import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** An option of the connection has a name in source, which is not sent. */
export const authSchemeGone = rule("scheme", "auth.scheme.gone", {
  meaning: {
    title: "The connection no longer has a credential",
    example: "`harbourToken` is now named `token`",
    code: "breaking if your code passes it to the connection",
    apps: "compatible: each operation is rated separately",
  },
  find: ({ before, after }) =>
    after
      ? undefined
      : {
          message: `The connection no longer has the credential \`${before}\`.`,
          verdict: verdicts.codeBreaks,
        },
});
