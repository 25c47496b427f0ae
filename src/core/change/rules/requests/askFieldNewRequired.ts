import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server must not require more than before. */
export const askFieldNewRequired = rule("field", "ask.field.new-required", {
  meaning: {
    title: "A required field was added to requests",
    example: "`ReservationRequest.insurance`",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ face, subject, before, after, owner }) =>
    face === "ask" && !before && after?.required === true
      ? { message: `\`${subject}\` must now be sent.`, verdict: verdicts.bothBreak, coordinates: owner, word: null }
      : undefined,
});
