import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may accept more than before. */
export const askOneOfGone = rule("record", "ask.one-of.gone", {
  meaning: {
    title: "More than one field of an input can be set",
    example: "no `@oneOf` on `BerthBy` any more",
    code: "compatible; breaking if each field has a class of its own",
    apps: "compatible",
  },
  find: ({ face, subject, before, after }, { knowsTypesByName }) =>
    face === "ask" && before.oneOf === true && after.oneOf !== true
      ? {
          message: `More than one field of \`${subject}\` can now be set.`,
          verdict: knowsTypesByName ? verdicts.codeBreaks : verdicts.harmless,
        }
      : undefined,
});
