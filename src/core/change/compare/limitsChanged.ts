import type { Constraints, Shape } from "../../contract/model.js";
import type { Points } from "./points.js";
import { shapeFamily } from "./shapeFamily.js";

const lower = ["minimum", "exclusiveMinimum", "minLength", "minItems"] as const;
const upper = ["maximum", "exclusiveMaximum", "maxLength", "maxItems"] as const;

/**
 * Returns in words which limits of a value became tighter and which became wider. Two patterns cannot be compared: a
 * new one may refuse values, and a removed one never does.
 */
export function limitsChanged({ before, after }: Points["value"]): { tighter?: string; wider?: string } {
  if (shapeFamily(before.shape) !== shapeFamily(after.shape)) return {};
  const left = constraintsOf(before.shape);
  const right = constraintsOf(after.shape);
  const found: { tighter?: string; wider?: string } = {};
  const note = (isTighter: boolean, words: string): void => {
    if (isTighter) found.tighter ??= words;
    else found.wider ??= words;
  };
  for (const key of lower)
    if (left[key] !== right[key])
      note((right[key] ?? -Infinity) > (left[key] ?? -Infinity), words(key, left[key], right[key]));
  for (const key of upper)
    if (left[key] !== right[key])
      note((right[key] ?? Infinity) < (left[key] ?? Infinity), words(key, left[key], right[key]));
  if (left.pattern !== right.pattern) note(right.pattern !== undefined, words("pattern", left.pattern, right.pattern));
  if (left.multipleOf !== right.multipleOf) {
    // A multiple of 4 is also a multiple of 2.
    const isLoosened =
      right.multipleOf === undefined || (left.multipleOf !== undefined && left.multipleOf % right.multipleOf === 0);
    note(!isLoosened, words("multipleOf", left.multipleOf, right.multipleOf));
  }
  if ((left.uniqueItems ?? false) !== (right.uniqueItems ?? false))
    note(right.uniqueItems === true, words("uniqueItems", left.uniqueItems, right.uniqueItems));
  return found;
}

type Limit = string | number | boolean | undefined;

function constraintsOf(shape: Shape): Constraints {
  const { minLength, minItems, ...others } = ("constraints" in shape ? shape.constraints : undefined) ?? {};
  // No length is below zero.
  return { ...others, ...(minLength ? { minLength } : {}), ...(minItems ? { minItems } : {}) };
}

function words(key: string, before: Limit, after: Limit): string {
  const said = (value: Limit): string => (value === undefined ? "none" : String(value));
  return `${key} went from ${said(before)} to ${said(after)}`;
}
