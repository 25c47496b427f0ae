import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Source that imports the name stops compiling; the wire does not know it. */
export const typeNameChanged = rule("name", "type.name.changed", {
  meaning: {
    title: "A type of the SDK is gone, and another one perhaps came for it",
    example: "`Berth` is now `Mooring`",
    code: "breaking where it is named",
    apps: "compatible",
  },
  find: ({ before, successor }) =>
    successor === undefined
      ? undefined
      : {
          message: `The type \`${before}\` is gone; perhaps it is now called \`${successor}\`.`,
          verdict: verdicts.codeBreaks,
          hint: `Use \`${successor}\` if it means the same.`,
        },
});
