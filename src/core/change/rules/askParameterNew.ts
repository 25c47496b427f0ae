import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** A server may take more than before. */
export const askParameterNew = rule(
  "parameter",
  "ask.parameter.new",
  {
    title: "An optional parameter or argument was added",
    example: "`listBerths` takes `sort`",
    code: "compatible",
    apps: "compatible",
  },
  ({ owner, before, after, isGraphql }) =>
    !before && after && !after.required
      ? {
          message: isGraphql
            ? `\`${owner}\` now takes the argument \`${after.name}\`.`
            : `${owner} now takes the ${after.in ?? ""} parameter \`${after.name}\`.`,
          verdict: verdicts.harmless,
          coordinates: [],
        }
      : undefined,
);
