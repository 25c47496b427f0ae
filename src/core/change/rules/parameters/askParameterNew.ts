import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may accept more than before. */
export const askParameterNew = rule("parameter", "ask.parameter.new", {
  meaning: {
    title: "An optional parameter or argument was added",
    example: "`listBerths` has the new parameter `sort`",
    code: "compatible; risky if arguments are positional",
    apps: "compatible",
  },
  find: ({ owner, before, after, isGraphql }, { takesArgumentsByPlace }) =>
    !before && after && !after.required
      ? {
          message: isGraphql
            ? `\`${owner}\` now accepts the argument \`${after.name}\`.`
            : `${owner} now accepts the ${after.in ?? ""} parameter \`${after.name}\`.`,
          verdict: takesArgumentsByPlace && !isGraphql ? verdicts.codeRisky : verdicts.harmless,
          coordinates: [],
        }
      : undefined,
});
