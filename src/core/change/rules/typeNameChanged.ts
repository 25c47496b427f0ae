import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** Source that imports the name stops compiling; the wire does not know it. */
export const typeNameChanged = rule(
  "name",
  "type.name.changed",
  {
    title: "A type of the SDK has another name",
    example: "`Berth` is now `Mooring`",
    code: "breaking where it is named",
    apps: "compatible",
  },
  ({ before, successor }) =>
    successor === undefined
      ? undefined
      : {
          message: `The type \`${before}\` is now called \`${successor}\`.`,
          verdict: verdicts.codeBreaks,
          hint: `Use \`${successor}\` instead.`,
        },
);
