import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Every failure type has a member for unexpected failures. */
export const failureStatusNew = rule("status", "failure.status.new", {
  meaning: {
    title: "A failure status was added",
    example: "`reserveBerth` can fail with 423",
    code: "risky if a match is exhaustive",
    apps: "risky; breaking if the old contract declared another body for all failures",
  },
  find: ({ owner, role, before, after, isMisread }) =>
    role === "failure" && !before && after
      ? {
          message: `${owner} can now fail with ${after.status}.`,
          hitsWholeMatches: true,
          verdict: isMisread === true ? verdicts.codeRiskyAppsBreak : verdicts.bothRisky,
        }
      : undefined,
});
