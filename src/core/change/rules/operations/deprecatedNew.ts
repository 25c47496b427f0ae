import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** This is only a warning. */
export const deprecatedNew = rule("field", "deprecated.new", {
  meaning: {
    title: "A field was deprecated",
    example: "`Voyage.remarks`",
    code: "compatible",
    apps: "compatible",
  },
  traits: { isDeprecation: true },
  find: ({ subject, before, after }) =>
    before && after && before.deprecated === undefined && after.deprecated !== undefined
      ? {
          message: `\`${subject}\` is now deprecated.${after.deprecated === "" ? "" : ` ${after.deprecated}`}`,
          verdict: verdicts.harmless,
        }
      : undefined,
});
