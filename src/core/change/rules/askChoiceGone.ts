import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";
import { withValue } from "../withValue.js";

/** Asks may gain values and not lose any. */
export const askChoiceGone = rule(
  "choice",
  "ask.choice.gone",
  {
    title: "A choice can no longer be sent",
    example: "status `closed`",
    code: "breaking; compatible for open choices that are answered too",
    apps: "breaking",
  },
  ({ face, subject, before, after, coordinates, isShared }, { openChoices }) =>
    face === "ask" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` no longer takes \`${String(before)}\`.`,
          verdict: openChoices && isShared === true ? verdicts.appsBreak : verdicts.bothBreak,
          coordinates: withValue(coordinates, before),
        }
      : undefined,
);
