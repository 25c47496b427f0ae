import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server must not demand more than before. */
export const askFieldNewRequired = rule("field", "ask.field.new-required", {
  meaning: {
    title: "A required field has to be sent",
    example: "`ReservationRequest.insurance`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ face, subject, before, after, owner }) =>
    face === "ask" && !before && after?.required === true
      ? { message: `\`${subject}\` has to be sent now.`, verdict: verdicts.bothBreak, coordinates: owner, word: null }
      : undefined,
});
