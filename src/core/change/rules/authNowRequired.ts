import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";
import { authAlternatives } from "../authAlternatives.js";

/** One alternative that both contracts accept keeps every app in. */
export const authNowRequired = rule(
  "auth",
  "auth.now-required",
  {
    title: "Auth is required where none was, or of another kind",
    example: "`GET /tariffs` now wants `harbourToken`",
    code: "breaking at the connection",
    apps: "breaking",
  },
  ({ subject, before, after, contracts }) => {
    const left = authAlternatives(before.operation, contracts.before);
    const right = authAlternatives(after.operation, contracts.after);
    if (right.length === 0 || right.includes("") || left.some((each) => right.includes(each))) return undefined;
    const wanted = after.operation.auth.map((schemes) => schemes.join(" with ")).join(", or ");
    const isNew = left.length === 0 || left.includes("");
    return {
      message: isNew ? `${subject} now needs auth: ${wanted}.` : `${subject} needs other auth than before: ${wanted}.`,
      verdict: verdicts.bothBreak,
      hint: "Supply the credential on the connection.",
    };
  },
);
