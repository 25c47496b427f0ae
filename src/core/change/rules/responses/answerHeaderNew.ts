import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Nobody reads a new header yet. */
export const answerHeaderNew = rule("header", "answer.header.new", {
  meaning: {
    title: "A response header was added",
    example: "`listBerths` has `Rate-Left`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ owner, before, after }) =>
    after && !before
      ? { message: `${owner} now returns the header \`${after.name}\`.`, verdict: verdicts.harmless }
      : undefined,
});
