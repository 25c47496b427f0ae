import type { Response, RestOperation } from "../../contract/model.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";

export interface ResponsePair {
  readonly before: Response;
  readonly after: Response;
}

/**
 * Statuses came or went.
 *
 * The law: success must stay success with the same body; a failure nobody expected is a risk.
 *
 * @returns the responses that correspond, to be compared inside
 */
export function responsesChanged(
  label: string,
  before: RestOperation,
  after: RestOperation,
  context: ChangeContext,
): ResponsePair[] {
  const isSuccess = ({ status }: Response): boolean => status.startsWith("2");
  const successes = successPairs(label, before.responses.filter(isSuccess), after.responses.filter(isSuccess), context);
  return [...successes, ...failurePairs(label, before, after, context)];
}

function successPairs(
  label: string,
  before: readonly Response[],
  after: readonly Response[],
  context: ChangeContext,
): ResponsePair[] {
  const pairs: ResponsePair[] = [];
  const unmatched = after.filter((response) => !before.some((each) => each.status === response.status));
  for (const response of before) {
    const partner = after.find((each) => each.status === response.status) ?? unmatched.shift();
    if (!partner) continue;
    const places = { before: response.place, after: partner.place };
    const hadBody = response.contents.length > 0;
    if (hadBody !== partner.contents.length > 0) {
      const message = `${label} ${hadBody ? "no longer answers a body" : "now answers a body"} (${response.status}, now ${partner.status}).`;
      context.report("answer.body.changed", "answer", `${label} ${response.status}`, message, {
        verdict: verdicts.bothBreak,
        ...places,
      });
    } else if (response.status !== partner.status) {
      context.report(
        "answer.status.changed",
        "answer",
        `${label} ${response.status}`,
        `${label} now succeeds with ${partner.status}; it was ${response.status}.`,
        { verdict: verdicts.appsRisky, ...places },
      );
    }
    pairs.push({ before: response, after: partner });
  }
  for (const response of unmatched) {
    const bodyless = response.contents.length === 0 && before.some((each) => each.contents.length > 0);
    if (!bodyless) continue;
    context.report(
      "answer.body.changed",
      "answer",
      `${label} ${response.status}`,
      `${label} can now also succeed with ${response.status} and no body.`,
      { verdict: verdicts.bothBreak, after: response.place },
    );
  }
  return pairs;
}

function failurePairs(
  label: string,
  before: RestOperation,
  after: RestOperation,
  context: ChangeContext,
): ResponsePair[] {
  const isFailure = ({ status }: Response): boolean => /^[45d]/.test(status);
  const pairs: ResponsePair[] = [];
  for (const response of before.responses.filter(isFailure)) {
    const partner = after.responses.find((each) => each.status === response.status);
    if (partner) pairs.push({ before: response, after: partner });
    else
      context.report(
        "failure.status.gone",
        "answer",
        `${label} ${response.status}`,
        `${label} no longer declares the failure ${response.status}.`,
        { verdict: verdicts.codeBreaks, before: response.place },
      );
  }
  for (const response of after.responses.filter(isFailure)) {
    if (before.responses.some((each) => each.status === response.status)) continue;
    context.report(
      "failure.status.new",
      "answer",
      `${label} ${response.status}`,
      `${label} can now fail with ${response.status}.`,
      { verdict: verdicts.bothRisky, after: response.place },
    );
  }
  return pairs;
}
