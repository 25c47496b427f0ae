import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may accept more than before. */
export const askFieldNew = rule("field", "ask.field.new", {
  meaning: {
    title: "An optional field was added to requests",
    example: "`ReservationRequest.pets`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ face, subject, before, after }) =>
    face === "ask" && !before && after && !after.required
      ? { message: `\`${subject}\` can now be sent.`, verdict: verdicts.harmless }
      : undefined,
});
