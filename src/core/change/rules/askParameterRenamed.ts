import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** In a path only the position counts on the wire; elsewhere the name does. */
export const askParameterRenamed = rule(
  "parameter",
  "ask.parameter.renamed",
  {
    title: "A parameter or argument was renamed",
    example: "`quay` is now `quayName`",
    code: "breaking",
    apps: "compatible in the path, else breaking or risky",
  },
  ({ owner, before, successor, isGraphql }) => {
    if (!before || !successor || before.in !== successor.in) return undefined;
    const hint = `Pass \`${successor.name}\` instead.`;
    if (isGraphql)
      return {
        message: `The argument \`${before.name}\` of \`${owner}\` is now called \`${successor.name}\`.`,
        verdict: verdicts.bothBreak,
        hint,
      };
    const verdict =
      before.in === "path"
        ? verdicts.codeBreaks
        : successor.required
          ? verdicts.bothBreak
          : verdicts.codeBreaksAppsRisky;
    return {
      message: `In ${owner}, the ${before.in ?? ""} parameter \`${before.name}\` is now called \`${successor.name}\`.`,
      verdict,
      hint,
    };
  },
);
