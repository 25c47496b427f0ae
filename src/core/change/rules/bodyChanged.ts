import type { Content, RestOperation } from "../../contract/model.js";
import { preferredContent } from "../../sdk/planContent.js";
import { verdicts } from "../change.js";
import type { ChangeContext } from "../changeContext.js";

/**
 * A request body came, went, became required, or is written in another media type.
 *
 * @returns the contents that correspond, to be compared inside
 */
export function bodyChanged(
  label: string,
  before: RestOperation,
  after: RestOperation,
  context: ChangeContext,
): { before: Content; after: Content } | undefined {
  const subject = `${label} body`;
  const places = { before: before.body?.place, after: after.body?.place };
  if (!before.body && after.body) {
    if (after.body.required)
      context.report("ask.body.now-required", "ask", subject, `${label} now demands a body.`, {
        verdict: verdicts.bothBreak,
        ...places,
      });
    else
      context.report("ask.body.new", "ask", subject, `${label} now takes a body.`, {
        verdict: verdicts.harmless,
        ...places,
      });
  }
  if (before.body && !after.body) {
    context.report("ask.body.gone", "ask", subject, `${label} no longer takes a body.`, {
      verdict: verdicts.codeBreaksAppsRisky,
      ...places,
    });
  }
  if (!before.body || !after.body) return undefined;
  if (!before.body.required && after.body.required) {
    context.report("ask.body.now-required", "ask", subject, `${label} now demands its body.`, {
      verdict: verdicts.bothBreak,
      ...places,
    });
  }
  const left = preferredContent(before.body.contents);
  const right = preferredContent(after.body.contents);
  if (!left || !right) return undefined;
  if (!after.body.contents.some((content) => content.mediaType === left.mediaType)) {
    context.report(
      "ask.media.changed",
      "ask",
      subject,
      `${label} now takes ${right.mediaType}; it was ${left.mediaType}.`,
      { verdict: verdicts.appsBreak, ...places },
    );
  }
  return { before: left, after: right };
}
