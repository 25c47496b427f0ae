import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A REST server ignores an unknown parameter, and a GraphQL server refuses it. */
export const askParameterGone = rule("parameter", "ask.parameter.gone", {
  meaning: {
    title: "A parameter or argument was removed",
    example: "`listBerths` no longer has `minLength`",
    code: "breaking",
    apps: "risky: the server ignores it; breaking in GraphQL",
  },
  find: ({ owner, before, after, successor, isGraphql }) => {
    if (!before || after || successor) return undefined;
    const what = isGraphql
      ? `\`${owner}\` no longer accepts the argument \`${before.name}\`.`
      : `${owner} no longer accepts the ${before.in ?? ""} parameter \`${before.name}\`.`;
    return {
      message: what,
      verdict: isGraphql ? verdicts.bothBreak : verdicts.codeBreaksAppsRisky,
      hint: "Remove the argument.",
    };
  },
});
