import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Headers are read one by one, and each may be absent. */
export const answerHeaderGone = rule("header", "answer.header.gone", {
  meaning: {
    title: "A response header was removed",
    example: "`listBerths` no longer has `Rate-Left`",
    code: "breaking if your code reads it",
    apps: "compatible: a header can always be absent",
  },
  find: ({ owner, before, after }) =>
    before && !after
      ? { message: `${owner} no longer returns the header \`${before.name}\`.`, verdict: verdicts.codeBreaks }
      : undefined,
});
