import type { Choice, Field, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { referenceSignature } from "../../../contract/sameShape.js";
import { claimApart, memberNameFrom, NameScope, spelledTypeName, typeNameFrom } from "../../nameScope.js";
import type { PlannedType } from "../../sdkPlan.js";

/** What the fields of a record are called in camelCase, unique in the record whatever the case. */
export function memberNames(fields: readonly Field[]): Map<Field, string> {
  return claimApart(new NameScope(), fields, {
    wanted: ({ name }) => memberNameFrom(name),
    apart: ({ name }) => memberNameFrom(spelledTypeName(name)),
    key: ({ name }) => name,
  });
}

/** What the values of a choice are called in camelCase, unique in the choice whatever the case. */
export function choiceNames(values: readonly Choice[]): Map<Choice, string> {
  return claimApart(new NameScope(), values, {
    wanted: ({ value }) => memberNameFrom(String(value)),
    apart: ({ value }) => memberNameFrom(spelledTypeName(String(value))),
    key: ({ value }) => `${typeof value} ${String(value)}`,
  });
}

/** What the members of a union are called in camelCase, unique in the union whatever the case. */
export function unionNames(union: UnionShape, types: ReadonlyMap<string, PlannedType>): Map<Reference, string> {
  const places = new Map(union.members.map((member, at) => [member, at]));
  const wanted = (member: Reference): string => {
    const [value] = union.tag?.values[places.get(member) ?? 0] ?? [];
    return memberNameFrom(value ?? wordsOf(member.shape, types));
  };
  return claimApart(new NameScope(), union.members, {
    wanted,
    apart: (member) => memberNameFrom(wordsOf(member.shape, types)),
    key: referenceSignature,
  });
}

/** What the positions of a tuple are called: they have nothing but their number. */
export function positionNames(count: number): string[] {
  return Array.from({ length: count }, (_, at) => `part${String(at + 1)}`);
}

/** What a shape is called that has no name of its own. */
function wordsOf(shape: Shape, types: ReadonlyMap<string, PlannedType>): string {
  switch (shape.kind) {
    case "named":
      return types.get(shape.key)?.name ?? "value";
    case "list":
      return `${typeNameFrom(wordsOf(shape.item.shape, types))} list`;
    case "map":
      return `${typeNameFrom(wordsOf(shape.value.shape, types))} map`;
    case "literal":
      return String(shape.value);
    default:
      return resolveShape(shape, types).kind;
  }
}
