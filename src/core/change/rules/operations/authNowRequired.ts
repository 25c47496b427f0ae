import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { authAlternatives } from "../../compare/authAlternatives.js";

/**
 * Every alternative that apps may use must remain. An alternative with fewer credentials also accepts requests with
 * more.
 */
export const authNowRequired = rule("auth", "auth.now-required", {
  meaning: {
    title: "Authentication is now required, or of another kind",
    example: "`GET /tariffs` now requires `harbourToken`",
    code: "breaking at the connection; compatible if another credential is still accepted",
    apps: "breaking",
  },
  find: ({ subject, before, after, contracts }) => {
    const left = waysIn(authAlternatives(before.operation, contracts.before));
    const right = waysIn(authAlternatives(after.operation, contracts.after, contracts.before));
    const isLetIn = (way: readonly string[]): boolean => right.some((each) => each.every((one) => way.includes(one)));
    const shut = left.filter((way) => !isLetIn(way));
    if (shut.length === 0) return undefined;
    const wanted = after.operation.auth.map((schemes) => schemes.join(" with ")).join(", or ");
    const isNew = shut.some((way) => way.length === 0);
    const isNarrowed = !isNew && shut.length < left.length;
    return {
      message: isNew
        ? `${subject} now needs auth: ${wanted}.`
        : isNarrowed
          ? `${subject} accepts fewer kinds of authentication than before: ${wanted}.`
          : `${subject} needs other auth than before: ${wanted}.`,
      verdict: isNarrowed ? verdicts.appsBreak : verdicts.bothBreak,
      hint: "Supply the credential on the connection.",
    };
  },
});

function waysIn(alternatives: readonly string[]): string[][] {
  if (alternatives.length === 0) return [[]];
  return alternatives.map((way) => way.split("+").filter((scheme) => scheme !== ""));
}
