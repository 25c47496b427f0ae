import type { Field, Reference } from "../contract/model.js";
import { sharesWord } from "../text/words.js";

/** Texts that are equal for two references exactly when they describe the same values, for either side. */
export interface Signatures {
  readonly before: (reference: Reference) => string;
  readonly after: (reference: Reference) => string;
}

/**
 * The new field that a gone one turned into: of the same shape and presence, and either the only candidate both ways
 * or the only one that shares a word with the old name.
 */
export function renamedTo<T extends Field>(
  field: T,
  gone: readonly T[],
  fresh: readonly T[],
  { before, after }: Signatures,
): T | undefined {
  if (fresh.length === 0) return undefined;
  const wanted = before(field.type);
  const candidates = fresh.filter((each) => each.required === field.required && after(each.type) === wanted);
  if (candidates.length === 0) return undefined;
  const rivals = gone.filter((each) => each.required === field.required && before(each.type) === wanted);
  const [only] = candidates;
  if (candidates.length === 1 && rivals.length === 1) return only;
  const related = candidates.filter((each) => sharesWord(field.name, each.name));
  const [first] = related;
  const contested = first && rivals.some((each) => each !== field && sharesWord(each.name, first.name));
  return related.length === 1 && !contested ? first : undefined;
}
