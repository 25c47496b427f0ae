import type { Field, Reference } from "../../contract/model.js";
import { mayBeRenamed } from "./mayBeRenamed.js";

/** Texts that are equal for two references exactly when they describe the same values, for either side. */
export interface Signatures {
  readonly before: (reference: Reference) => string;
  readonly after: (reference: Reference) => string;
}

/** What went and what came at one place. */
export interface GoneAndFresh<T> {
  readonly gone: readonly T[];
  readonly fresh: readonly T[];
  /** What the place is called: its words tell nothing of a field. */
  readonly owner: string;
}

/**
 * The new field that a gone one perhaps turned into: of the same shape, presence and default, with a name or description
 * that says the same; undefined where there is a second candidate on either side.
 */
export function renamedTo<T extends Field>(
  field: T,
  { gone, fresh, owner }: GoneAndFresh<T>,
  { before, after }: Signatures,
): T | undefined {
  const mayBecome = (from: T, to: T): boolean =>
    from.required === to.required &&
    JSON.stringify(from.default) === JSON.stringify(to.default) &&
    mayBeRenamed(from, to, owner) &&
    before(from.type) === after(to.type);
  const [only, ...others] = fresh.filter((each) => mayBecome(field, each));
  if (!only || others.length > 0) return undefined;
  return gone.some((each) => each !== field && mayBecome(each, only)) ? undefined : only;
}
