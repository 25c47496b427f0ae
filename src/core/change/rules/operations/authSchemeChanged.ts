import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { schemeWords } from "../../compare/authAlternatives.js";

/** Source supplies the same credential to the connection. Released apps send it as before. */
export const authSchemeChanged = rule("scheme", "auth.scheme.changed", {
  meaning: {
    title: "A credential is sent in another way",
    example: "`harbourKey` is sent as the header `X-Key` instead of `X-Harbour`",
    code: "compatible if only the location of a key changed; else breaking at the connection",
    apps: "breaking",
  },
  find: ({ before, scheme, after }) => {
    if (!scheme || !after) return undefined;
    const [was, is] = [schemeWords(scheme), schemeWords(after)];
    if (was === is) return undefined;
    const isKey = scheme.kind === "key" && after.kind === "key";
    return {
      message: `The credential \`${before}\` is now sent as ${is} instead of ${was}.`,
      verdict: isKey ? verdicts.appsBreak : verdicts.bothBreak,
      ...(isKey ? {} : { hint: "Give the connection a credential of the new kind." }),
    };
  },
});
