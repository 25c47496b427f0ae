import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The failure no longer has the status that source compares with. */
export const failureStatusGone = rule("status", "failure.status.gone", {
  meaning: {
    title: "A failure status is no longer declared",
    example: "`removeBerth` no longer declares 409",
    code: "breaking if your code compares it",
    apps: "compatible",
  },
  find: ({ owner, role, before, after }) =>
    role === "failure" && before && !after
      ? { message: `${owner} no longer declares the failure ${before.status}.`, verdict: verdicts.codeBreaks }
      : undefined,
});
