import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** A server overlooks a field that it does not know, unless it forbids them; a GraphQL server always does. */
export const askFieldGone = rule(
  "field",
  "ask.field.gone",
  {
    title: "A field that could be sent was removed",
    example: "`ReservationRequest.crew`",
    code: "breaking",
    apps: "risky, breaking when undeclared fields are forbidden",
  },
  ({ face, subject, before, after, successor, records, isGraphql }) =>
    face === "ask" && before && !after && !successor
      ? {
          message: `\`${subject}\` can no longer be sent.`,
          verdict: records.after.closed === true || isGraphql ? verdicts.bothBreak : verdicts.codeBreaksAppsRisky,
        }
      : undefined,
);
