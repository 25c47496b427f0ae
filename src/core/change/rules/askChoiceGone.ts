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
    code: "breaking",
    apps: "breaking",
  },
  ({ face, subject, before, after, coordinates }) =>
    face === "ask" && before !== undefined && after === undefined
      ? {
          message: `\`${subject}\` no longer takes \`${String(before)}\`.`,
          verdict: verdicts.bothBreak,
          coordinates: withValue(coordinates, before),
        }
      : undefined,
);
