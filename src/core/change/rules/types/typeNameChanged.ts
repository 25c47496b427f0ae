import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Source that imports the name no longer compiles. The name is not sent. */
export const typeNameChanged = rule("name", "type.name.changed", {
  meaning: {
    title: "A type of the SDK was removed, and another one may replace it",
    example: "`Berth` is now `Mooring`",
    code: "breaking if your code names it",
    apps: "compatible",
  },
  find: ({ before, successor }) =>
    successor === undefined
      ? undefined
      : {
          message: `The type \`${before}\` was removed. It may have been renamed to \`${successor}\`.`,
          verdict: verdicts.codeBreaks,
          hint: `Use \`${successor}\` if it means the same.`,
        },
});
