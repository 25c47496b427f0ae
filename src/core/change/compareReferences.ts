import { sameReference } from "../contract/sameShape.js";
import { resolvedAfter, resolvedBefore, type ChangeContext, type ReferencePair } from "./changeContext.js";
import { choiceChanged } from "./rules/choiceChanged.js";
import { fieldsChanged } from "./rules/fieldsChanged.js";
import { limitChanged } from "./rules/limitChanged.js";
import { membersChanged } from "./rules/membersChanged.js";
import { nullChanged } from "./rules/nullChanged.js";
import { typeChanged } from "./rules/typeChanged.js";

/** A pair of named types that has to be compared once for each direction it is used in. */
export type NamedPairs = (before: string, after: string, face: "ask" | "answer") => void;

/**
 * Compares two uses of a shape with every rule for shapes. Null and type come first: when the types differ nothing
 * inside can be compared. Two uses of named types are left to `onNamed`, which sees each pair once; so a shape moved
 * behind a reference, or inlined, is no change, and recursion ends.
 */
export function compareReferences(pair: ReferencePair, context: ChangeContext, onNamed: NamedPairs): void {
  const { before, after, face } = pair;
  if (before.shape.kind === "named" && after.shape.kind === "named") {
    nullChanged(pair, context);
    onNamed(before.shape.key, after.shape.key, face);
    return;
  }
  if (sameReference(before, after) && !holdsNames(pair)) return;
  nullChanged(pair, context);
  if (!typeChanged(pair, context)) return;
  choiceChanged(pair, context);
  limitChanged(pair, context);
  compareInside(pair, context, onNamed);
}

/** Named shapes inside compare by key, and the types behind equal keys may differ. */
function holdsNames({ before }: ReferencePair): boolean {
  return !["text", "integer", "number", "boolean", "literal", "choice", "bytes", "any"].includes(before.shape.kind);
}

function compareInside(pair: ReferencePair, context: ChangeContext, onNamed: NamedPairs): void {
  const before = resolvedBefore(pair, context).shape;
  const after = resolvedAfter(pair, context).shape;
  const inner = (left: ReferencePair["before"], right: ReferencePair["after"], subject: string): void => {
    compareReferences({ ...pair, before: left, after: right, subject }, context, onNamed);
  };
  if (before.kind === "list" && after.kind === "list") inner(before.item, after.item, `${pair.subject}[]`);
  else if (before.kind === "map" && after.kind === "map") inner(before.value, after.value, `${pair.subject}[key]`);
  else if (before.kind === "tuple" && after.kind === "tuple") {
    before.items.forEach((item, at) => {
      const other = after.items[at];
      if (other) inner(item, other, `${pair.subject}[${String(at)}]`);
    });
  } else if (before.kind === "union" && after.kind === "union") {
    for (const member of membersChanged(pair, before, after, context))
      inner(member.before, member.after, `${pair.subject} as ${member.name.replaceAll("`", "")}`);
  } else if ((before.kind === "record" || before.kind === "map") && (after.kind === "record" || after.kind === "map")) {
    const asRecord = (shape: typeof before) =>
      shape.kind === "record" ? shape : { kind: "record" as const, fields: [], rest: shape.value };
    const coordinateOf = (): string[] => [...pair.coordinates];
    for (const { before: left, after: right } of fieldsChanged(
      { before: asRecord(before), after: asRecord(after), face: pair.face, subject: pair.subject, coordinateOf },
      context,
    )) {
      compareReferences(
        {
          before: left.type,
          after: right.type,
          face: pair.face,
          subject: `${pair.subject}.${left.name}`,
          placeBefore: left.place,
          placeAfter: right.place,
          coordinates: pair.coordinates,
          word: left.name,
        },
        context,
        onNamed,
      );
    }
  }
}
