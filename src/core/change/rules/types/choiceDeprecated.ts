import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** This is only a warning. */
export const choiceDeprecated = rule("listed", "choice.deprecated", {
  meaning: {
    title: "An enum value was deprecated",
    example: "`VoyageStatus.LATE`",
    code: "compatible",
    apps: "compatible",
  },
  traits: { isDeprecation: true },
  find: ({ subject, before, after }) =>
    before.deprecated === undefined && after.deprecated !== undefined
      ? { message: `\`${subject}\` is now deprecated.`, verdict: verdicts.harmless }
      : undefined,
});
