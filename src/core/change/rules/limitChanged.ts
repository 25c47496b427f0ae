import type { Constraints, Shape } from "../../contract/model.js";
import { verdicts } from "../change.js";
import { placesOf, resolvedAfter, resolvedBefore, type ChangeContext, type ReferencePair } from "../changeContext.js";

const lower = ["minimum", "exclusiveMinimum", "minLength", "minItems"] as const;
const upper = ["maximum", "exclusiveMaximum", "maxLength", "maxItems"] as const;

/**
 * A range, length or pattern changed.
 *
 * The law: a tighter limit refuses requests that were valid; a wider one lets answers through that no app expected.
 */
export function limitChanged(pair: ReferencePair, context: ChangeContext): void {
  const before = constraintsOf(resolvedBefore(pair, context).shape);
  const after = constraintsOf(resolvedAfter(pair, context).shape);
  let tighter: string | undefined;
  let wider: string | undefined;
  const note = (isTighter: boolean, words: string): void => {
    if (isTighter) tighter ??= words;
    else wider ??= words;
  };
  for (const key of lower)
    if (before[key] !== after[key])
      note((after[key] ?? -Infinity) > (before[key] ?? -Infinity), words(key, before[key], after[key]));
  for (const key of upper)
    if (before[key] !== after[key])
      note((after[key] ?? Infinity) < (before[key] ?? Infinity), words(key, before[key], after[key]));
  // Two patterns cannot be weighed against each other: a new one may refuse, a dropped one never does.
  if (before.pattern !== after.pattern)
    note(after.pattern !== undefined, words("pattern", before.pattern, after.pattern));
  if (before.multipleOf !== after.multipleOf)
    note(after.multipleOf !== undefined, words("multipleOf", before.multipleOf, after.multipleOf));
  if (before.uniqueItems !== after.uniqueItems)
    note(after.uniqueItems === true, words("uniqueItems", before.uniqueItems, after.uniqueItems));
  const { face, subject } = pair;
  const sentence = (change: string): string => `\`${subject}\`: ${change}.`;
  if (face === "ask") {
    if (tighter !== undefined)
      context.report("ask.limit.tightened", face, subject, sentence(tighter), {
        verdict: verdicts.appsBreak,
        ...placesOf(pair),
      });
    if (wider !== undefined)
      context.report("ask.limit.loosened", face, subject, sentence(wider), {
        verdict: verdicts.harmless,
        ...placesOf(pair),
      });
    return;
  }
  if (wider !== undefined)
    context.report("answer.limit.widened", face, subject, sentence(wider), {
      verdict: verdicts.appsRisky,
      ...placesOf(pair),
    });
  if (tighter !== undefined)
    context.report("answer.limit.narrowed", face, subject, sentence(tighter), {
      verdict: verdicts.harmless,
      ...placesOf(pair),
    });
}

type Limit = string | number | boolean | undefined;

function constraintsOf(shape: Shape): Constraints {
  return ("constraints" in shape ? shape.constraints : undefined) ?? {};
}

function words(key: string, before: Limit, after: Limit): string {
  const said = (value: Limit): string => (value === undefined ? "none" : String(value));
  return `${key} went from ${said(before)} to ${said(after)}`;
}
