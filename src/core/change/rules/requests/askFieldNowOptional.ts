import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may require less than before. */
export const askFieldNowOptional = rule("field", "ask.field.now-optional", {
  meaning: {
    title: "A field in requests became optional",
    example: "`ReservationRequest.departure`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ face, subject, before, after }) =>
    face === "ask" && before?.required === true && after?.required === false
      ? { message: `\`${subject}\` is now optional.`, verdict: verdicts.harmless }
      : undefined,
});
