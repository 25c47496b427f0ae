import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may take more than before. */
export const askOneOfGone = rule("record", "ask.one-of.gone", {
  meaning: {
    title: "Several fields of an input can be given where it was exactly one",
    example: "no `@oneOf` on `BerthBy` any more",
    code: "compatible: one alone is still taken; breaking where each has a class of its own",
    apps: "compatible",
  },
  find: ({ face, subject, before, after }, { knowsTypesByName }) =>
    face === "ask" && before.oneOf === true && after.oneOf !== true
      ? {
          message: `Several fields of \`${subject}\` can be given now.`,
          verdict: knowsTypesByName ? verdicts.codeBreaks : verdicts.harmless,
        }
      : undefined,
});
