import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server ignores an unknown field, unless it forbids such fields. A GraphQL server always does. */
export const askFieldGone = rule("field", "ask.field.gone", {
  meaning: {
    title: "A field was removed from requests",
    example: "`ReservationRequest.crew`",
    code: "breaking",
    apps: "risky; breaking if undeclared fields are forbidden or have another type",
  },
  find: ({ face, subject, before, after, successor, records, isGraphql, isTakenByRest }) => {
    if (face !== "ask" || !before || after || successor) return undefined;
    const message = `\`${subject}\` can no longer be sent.`;
    if (isTakenByRest === true)
      return { message: `\`${subject}\` can now be sent only as an undeclared field.`, verdict: verdicts.appsRisky };
    const isRefused = records.after.closed === true || isGraphql || isTakenByRest === false;
    return { message, verdict: isRefused ? verdicts.bothBreak : verdicts.codeBreaksAppsRisky };
  },
});
