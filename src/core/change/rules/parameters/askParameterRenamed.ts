import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** In a path only the position is sent. Elsewhere, the name is sent. */
export const askParameterRenamed = rule("parameter", "ask.parameter.renamed", {
  meaning: {
    title: "A path parameter was renamed, or another parameter may replace a removed one",
    example: "`quay` is now `quayName`",
    code: "breaking",
    apps: "compatible in the path, else breaking or risky",
  },
  find: ({ owner, before, successor, isGraphql }) => {
    if (!before || !successor || before.in !== successor.in) return undefined;
    const perhaps = `Pass \`${successor.name}\` if it means the same.`;
    if (isGraphql)
      return {
        message: `The argument \`${before.name}\` of \`${owner}\` was removed. It may have been renamed to \`${successor.name}\`.`,
        verdict: verdicts.bothBreak,
        hint: perhaps,
      };
    const parameter = `In ${owner}, the ${before.in ?? ""} parameter \`${before.name}\``;
    if (before.in === "path")
      return {
        message: `${parameter} is now named \`${successor.name}\`.`,
        verdict: verdicts.codeBreaks,
        hint: `Pass \`${successor.name}\` instead.`,
      };
    return {
      message: `${parameter} was removed. It may have been renamed to \`${successor.name}\`.`,
      verdict: successor.required ? verdicts.bothBreak : verdicts.codeBreaksAppsRisky,
      hint: perhaps,
    };
  },
});
