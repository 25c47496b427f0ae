import type { Reference, UnionShape } from "../../contract/model.js";
import { referenceSignature } from "../../contract/sameShape.js";
import { verdicts } from "../change.js";
import { placesOf, type ChangeContext, type ReferencePair } from "../changeContext.js";
import { shapeWords } from "../shapeWords.js";

/**
 * A union gained or lost members.
 *
 * The law: as with the values of a choice.
 *
 * @returns the members that correspond, to be compared inside
 */
export function membersChanged(
  pair: ReferencePair,
  before: UnionShape,
  after: UnionShape,
  context: ChangeContext,
): { before: Reference; after: Reference; name: string }[] {
  const { face, subject } = pair;
  const keyed = (union: UnionShape): Map<string, Reference> =>
    new Map(union.members.map((member, at) => [memberKey(union, member, at), member]));
  const left = keyed(before);
  const right = keyed(after);
  for (const [key] of left) {
    if (right.has(key)) continue;
    const message = `\`${subject}\` can no longer be ${nameOf(key, left)}.`;
    if (face === "ask")
      context.report("ask.member.gone", face, subject, message, { verdict: verdicts.bothBreak, ...placesOf(pair) });
    else
      context.report("answer.member.gone", face, subject, message, { verdict: verdicts.codeBreaks, ...placesOf(pair) });
  }
  for (const [key] of right) {
    if (left.has(key)) continue;
    const message = `\`${subject}\` can now be ${nameOf(key, right)}.`;
    if (face === "ask")
      context.report("ask.member.new", face, subject, message, { verdict: verdicts.harmless, ...placesOf(pair) });
    else
      context.report("answer.member.new", face, subject, message, {
        verdict: verdicts.codeRiskyAppsBreak,
        ...placesOf(pair),
        hint: "Give every match on it a default branch.",
      });
  }
  return [...left].flatMap(([key, member]) => {
    const other = right.get(key);
    return other ? [{ before: member, after: other, name: nameOf(key, left) }] : [];
  });
}

/** By tag where there is one, else by name, else by shape. */
function memberKey(union: UnionShape, member: Reference, at: number): string {
  const [value] = union.tag?.values[at] ?? [];
  return value ?? (member.shape.kind === "named" ? member.shape.key : referenceSignature(member));
}

function nameOf(key: string, members: ReadonlyMap<string, Reference>): string {
  const member = members.get(key);
  return member && member.shape.kind !== "named" && /[{[(:#]/.test(key) ? shapeWords(member.shape) : `\`${key}\``;
}
