import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may accept more than before. */
export const askBodyNew = rule("body", "ask.body.new", {
  meaning: {
    title: "An optional request body was added",
    example: "`removeBerth` has a body",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ owner, before, after }) =>
    !before && after?.required === false
      ? { message: `${owner} now accepts a body.`, verdict: verdicts.harmless }
      : undefined,
});
