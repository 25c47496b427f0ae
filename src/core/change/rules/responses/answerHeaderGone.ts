import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Headers are read one by one, and each may be absent. */
export const answerHeaderGone = rule("header", "answer.header.gone", {
  meaning: {
    title: "A header is no longer answered",
    example: "`listBerths` lost `Rate-Left`",
    code: "breaking where it is read",
    apps: "compatible: a header may always be absent",
  },
  find: ({ owner, before, after }) =>
    before && !after
      ? { message: `${owner} no longer answers the header \`${before.name}\`.`, verdict: verdicts.codeBreaks }
      : undefined,
});
