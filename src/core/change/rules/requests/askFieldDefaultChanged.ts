import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Defaults are never sent, so a request without the field gets the new one. */
export const askFieldDefaultChanged = rule("field", "ask.field.default-changed", {
  meaning: {
    title: "The server's default for a field changed",
    example: "`ReservationRequest.crew` defaults to 2 instead of 1",
    code: "compatible",
    apps: "risky",
  },
  find: ({ face, subject, before, after, isGraphql }) => {
    if (face !== "ask" || !before || !after || JSON.stringify(before.default) === JSON.stringify(after.default))
      return undefined;
    if (isGraphql && after.default === undefined && after.required) return undefined;
    const said = (value: unknown): string => (value === undefined ? "nothing" : JSON.stringify(value));
    return {
      message: `The server's default for \`${subject}\` is now ${said(after.default)} instead of ${said(before.default)}.`,
      verdict: verdicts.appsRisky,
    };
  },
});
