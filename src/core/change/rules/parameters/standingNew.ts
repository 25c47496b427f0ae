import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The connection asks for it once, whatever the number of operations. */
export const standingNew = rule("parameter", "standing.new", {
  meaning: {
    title: "A standing parameter has to be supplied by the connection",
    example: "the connection wants `harbourId`",
    code: "breaking, once at the connection",
    apps: "compatible: each operation that demands it is judged by itself",
  },
  find: ({ owner, after, before }) =>
    owner === "connection" && after && !before
      ? { message: `The connection now wants \`${after.name}\`.`, verdict: verdicts.codeBreaks, word: null }
      : undefined,
});
