import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** The old name is a field that the server does not know. */
export const askFieldRenamed = rule(
  "field",
  "ask.field.renamed",
  {
    title: "A field that is sent was renamed",
    example: "`crew` is now `crewSize`",
    code: "breaking",
    apps: "risky, breaking when the new one is required or undeclared fields are forbidden",
  },
  ({ face, subject, before, successor, records, isGraphql }) =>
    face === "ask" && before && successor
      ? {
          message: `\`${subject}\` is now called \`${successor.name}\` when it is sent.`,
          verdict:
            records.after.closed === true || successor.required || isGraphql
              ? verdicts.bothBreak
              : verdicts.codeBreaksAppsRisky,
          hint: `Use \`${successor.name}\` instead.`,
        }
      : undefined,
);
