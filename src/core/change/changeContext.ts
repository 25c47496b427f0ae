import type { Reference, RestContract, GraphqlContract } from "../contract/model.js";
import { resolveReference } from "../contract/resolveShape.js";
import type { Place } from "../problem/place.js";
import type { Change, ChangeFace, Verdict } from "./change.js";
import type { ChangeCode } from "./changeCodes.js";

/** What a rule says about a change; the walk adds which operations reach it. */
export interface Finding {
  readonly verdict: Verdict;
  readonly before?: Place | undefined;
  readonly after?: Place | undefined;
  readonly coordinates?: readonly string[];
  readonly word?: string | undefined;
  readonly hint?: string;
}

/** Where a comparison stands, and how rules report. */
export interface ChangeContext {
  readonly before: RestContract | GraphqlContract;
  readonly after: RestContract | GraphqlContract;
  readonly report: (code: ChangeCode, face: ChangeFace, subject: string, message: string, finding: Finding) => void;
}

/**
 * A context that collects into a list.
 *
 * @param operations labels of the operations that reach what is compared; asked for only when there is a change
 */
export function collectInto(
  changes: Change[],
  before: ChangeContext["before"],
  after: ChangeContext["after"],
  operations: () => readonly string[] = () => [],
): ChangeContext {
  return {
    before,
    after,
    report: (code, face, subject, message, finding) => {
      changes.push({
        code,
        face,
        subject,
        message,
        verdict: finding.verdict,
        ...(finding.before ? { before: finding.before } : {}),
        ...(finding.after ? { after: finding.after } : {}),
        ...(finding.word === undefined ? {} : { word: finding.word }),
        ...(finding.hint === undefined ? {} : { hint: finding.hint }),
        operations: operations(),
        coordinates: finding.coordinates ?? [],
      });
    },
  };
}

/** Two uses of a shape that correspond to each other. */
export interface ReferencePair {
  readonly before: Reference;
  readonly after: Reference;
  readonly face: "ask" | "answer";
  /** As people name the place, for example "Berth.length". */
  readonly subject: string;
  readonly placeBefore?: Place | undefined;
  readonly placeAfter?: Place | undefined;
  readonly coordinates: readonly string[];
  /** The name source has to use to be hit, for a field or parameter. */
  readonly word?: string | undefined;
}

export function placesOf(pair: Pick<ReferencePair, "placeBefore" | "placeAfter" | "coordinates" | "word">) {
  return { before: pair.placeBefore, after: pair.placeAfter, coordinates: pair.coordinates, word: pair.word };
}

export function resolvedBefore(pair: ReferencePair, context: ChangeContext): Reference {
  return resolveReference(pair.before, context.before.types);
}

export function resolvedAfter(pair: ReferencePair, context: ChangeContext): Reference {
  return resolveReference(pair.after, context.after.types);
}
