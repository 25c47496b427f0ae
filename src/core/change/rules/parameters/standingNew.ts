import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The connection requires it once, whatever the number of operations. */
export const standingNew = rule("parameter", "standing.new", {
  meaning: {
    title: "The connection requires another shared parameter",
    example: "the connection requires `harbourId`",
    code: "breaking, once at the connection",
    apps: "compatible: each operation is rated separately",
  },
  find: ({ owner, after, before }) =>
    owner === "connection" && after && !before
      ? { message: `The connection now requires \`${after.name}\`.`, verdict: verdicts.codeBreaks, word: null }
      : undefined,
});
