import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may require less than before. */
export const askBodyNowOptional = rule("body", "ask.body.now-optional", {
  meaning: {
    title: "A request body became optional",
    example: "the body of `changeBerth` is optional",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ owner, before, after }) =>
    before?.required === true && after?.required === false
      ? { message: `${owner} can now be called without its body.`, verdict: verdicts.harmless }
      : undefined,
});
