import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Defaults are never sent, so who leaves a field out gets the new one. */
export const askFieldDefaultChanged = rule("field", "ask.field.default-changed", {
  meaning: {
    title: "The server's default for a field changed",
    example: "`ReservationRequest.crew` is 2 instead of 1 when absent",
    code: "compatible",
    apps: "risky",
  },
  find: ({ face, subject, before, after, isGraphql }) => {
    if (face !== "ask" || !before || !after || JSON.stringify(before.default) === JSON.stringify(after.default))
      return undefined;
    if (isGraphql && after.default === undefined && after.required) return undefined;
    const said = (value: unknown): string => (value === undefined ? "nothing" : JSON.stringify(value));
    return {
      message: `When \`${subject}\` is absent the server takes ${said(after.default)}; it took ${said(before.default)}.`,
      verdict: verdicts.appsRisky,
    };
  },
});
