import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { ofValue, withValue } from "../../compare/withValue.js";

/** Requests may gain values and must not lose any. */
export const askChoiceGone = rule("choice", "ask.choice.gone", {
  meaning: {
    title: "An enum value can no longer be sent",
    example: "status `closed`",
    code: "breaking; compatible for open enums that also occur in responses",
    apps: "breaking",
  },
  traits: { isOneOfSeveral: true },
  find: ({ face, subject, before, after, coordinates, isShared }, { openChoices, choicesArePlain }) =>
    face === "ask" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` no longer accepts \`${String(before)}\`.`,
          verdict: choicesArePlain && openChoices && isShared === true ? verdicts.appsBreak : verdicts.bothBreak,
          // If the enum has a type of its own, source that does not name the constant still works.
          coordinates: choicesArePlain ? withValue(coordinates, before) : ofValue(coordinates, before),
        }
      : undefined,
});
