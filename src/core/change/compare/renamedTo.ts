import type { Field, Reference } from "../../contract/model.js";
import { mayBeRenamed } from "./mayBeRenamed.js";

/** Returns texts that are equal for two references exactly if they describe the same values, for each side. */
export interface Signatures {
  readonly before: (reference: Reference) => string;
  readonly after: (reference: Reference) => string;
}

/** The removed and the new parts at one place. */
export interface GoneAndFresh<T> {
  readonly gone: readonly T[];
  readonly fresh: readonly T[];
  /** The name of the place, whose words do not identify a field. */
  readonly owner: string;
}

/**
 * Returns the new field that a removed one was perhaps renamed to: with the same shape, presence and default, and a
 * similar name or description.
 *
 * @returns undefined if there is a second candidate on either side
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
