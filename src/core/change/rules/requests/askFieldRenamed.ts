import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The server does not know the old name. */
export const askFieldRenamed = rule("field", "ask.field.renamed", {
  meaning: {
    title: "A field was removed from requests, and another one may replace it",
    example: "`crew` is now `crewSize`",
    code: "breaking",
    apps: "risky; breaking if the new one is required or undeclared fields are forbidden",
  },
  find: ({ face, subject, before, successor, records, isGraphql }) =>
    face === "ask" && before && successor
      ? {
          message: `\`${subject}\` can no longer be sent. It may have been renamed to \`${successor.name}\`.`,
          verdict:
            records.after.closed === true || successor.required || isGraphql
              ? verdicts.bothBreak
              : verdicts.codeBreaksAppsRisky,
          hint: `Send \`${successor.name}\` if it means the same.`,
        }
      : undefined,
});
