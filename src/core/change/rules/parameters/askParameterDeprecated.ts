import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** This is only a warning. */
export const askParameterDeprecated = rule("parameter", "ask.parameter.deprecated", {
  meaning: {
    title: "A parameter or argument was deprecated",
    example: "`minLength` of `listBerths` is deprecated",
    code: "compatible",
    apps: "compatible",
  },
  traits: { isDeprecation: true },
  find: ({ subject, before, after }) =>
    before && after && before.deprecated === undefined && after.deprecated !== undefined
      ? { message: `\`${subject}\` is now deprecated.`, verdict: verdicts.harmless }
      : undefined,
});
