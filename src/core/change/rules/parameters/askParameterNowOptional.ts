import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may require less than before. */
export const askParameterNowOptional = rule("parameter", "ask.parameter.now-optional", {
  meaning: {
    title: "A parameter or argument became optional",
    example: "`from` is optional",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ subject, owner, before, after, isGraphql }) =>
    before?.required === true && after?.required === false
      ? {
          message: isGraphql
            ? `The argument \`${before.name}\` of \`${owner}\` is now optional.`
            : `\`${subject}\` is now optional.`,
          verdict: verdicts.harmless,
          coordinates: [],
        }
      : undefined,
});
