import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server must not require more than before. */
export const askParameterNewRequired = rule("parameter", "ask.parameter.new-required", {
  meaning: {
    title: "A required parameter or argument was added",
    example: "`listBerths` requires `harbourId`",
    code: "breaking; at the connection if it is a shared parameter",
    apps: "breaking",
  },
  find: ({ owner, before, after, isGraphql }) => {
    if (before || !after?.required) return undefined;
    const message = isGraphql
      ? `\`${owner}\` now requires the argument \`${after.name}\`.`
      : `${owner} now requires the ${after.in ?? ""} parameter \`${after.name}\`.`;
    return {
      message,
      verdict: after.isStanding === true ? verdicts.appsBreak : verdicts.bothBreak,
      ...(isGraphql ? { coordinates: [printCoordinate(owner)] } : {}),
      word: null,
    };
  },
});
