import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Colliding names are changed in source. Requests are the same. */
export const askArgumentRenamed = rule("parameter", "ask.argument.renamed", {
  meaning: {
    title: "A parameter has another name in the SDK, because another parameter has its name",
    example: "`day` in the query is now `dayQuery`, next to `day` in the path",
    code: "breaking",
    apps: "compatible",
  },
  find: ({ owner, before, after }) =>
    before?.argument !== undefined &&
    after?.argument !== undefined &&
    before.argument !== after.argument &&
    before.name === after.name
      ? {
          message: `The argument \`${before.argument}\` of ${owner} is now named \`${after.argument}\`.`,
          verdict: verdicts.codeBreaks,
          hint: `Pass \`${after.argument}\` instead.`,
        }
      : undefined,
});
