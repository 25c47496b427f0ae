import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { authAlternatives } from "../../compare/authAlternatives.js";

/** A credential that is not required does no harm. */
export const authNoLongerRequired = rule("auth", "auth.no-longer-required", {
  meaning: {
    title: "Authentication is no longer required",
    example: "anyone can call `GET /tariffs`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ subject, before, after, contracts }) => {
    const left = authAlternatives(before.operation, contracts.before);
    const right = authAlternatives(after.operation, contracts.after, contracts.before);
    if (left.length === 0 || left.includes("") || (right.length > 0 && !right.includes(""))) return undefined;
    return { message: `${subject} no longer requires authentication.`, verdict: verdicts.harmless };
  },
});
