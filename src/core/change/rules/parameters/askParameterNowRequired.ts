import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A request without it is refused. */
export const askParameterNowRequired = rule("parameter", "ask.parameter.now-required", {
  meaning: {
    title: "A parameter or argument became required",
    example: "`until` is required now",
    code: "breaking if your code omits it",
    apps: "breaking if the app omits it",
  },
  find: ({ subject, owner, before, after, coordinates, isGraphql }) => {
    if (!before || before.required || !after?.required) return undefined;
    if (!isGraphql)
      return {
        message: `\`${subject}\` is now required.`,
        verdict: after.isStanding === true ? verdicts.appsBreak : verdicts.bothBreak,
        coordinates: coordinates.map((each) => printCoordinate(each, "omitted")),
        word: null,
      };
    return {
      message: `The argument \`${before.name}\` of \`${owner}\` is now required.`,
      verdict: verdicts.bothBreak,
      coordinates: [printCoordinate(subject, "omitted"), printCoordinate(subject, "maybeNull")],
    };
  },
});
