import type { Choice, Field, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { referenceSignature } from "../../../contract/sameShape.js";
import { claimApart, memberNameFrom, NameScope, spelledTypeName, typeNameFrom } from "../../nameScope.js";
import type { PlannedType } from "../../sdkPlan.js";

/** Returns the camelCase names of a record's fields, unique in the record in any case. */
export function memberNames(fields: readonly Field[]): Map<Field, string> {
  return claimApart(new NameScope(), fields, {
    wanted: ({ name }) => memberNameFrom(name),
    apart: ({ name }) => memberNameFrom(spelledTypeName(name)),
    key: ({ name }) => name,
  });
}

/** Returns the camelCase names of an enum's values, unique in the enum in any case. */
export function choiceNames(values: readonly Choice[]): Map<Choice, string> {
  return claimApart(new NameScope(), values, {
    wanted: ({ value }) => memberNameFrom(String(value)),
    apart: ({ value }) => memberNameFrom(spelledTypeName(String(value))),
    key: ({ value }) => `${typeof value} ${String(value)}`,
  });
}

/** Returns the camelCase names of a union's members, unique in the union in any case. */
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

/** Returns the names of a tuple's positions, which are made from their numbers. */
export function positionNames(count: number): string[] {
  return Array.from({ length: count }, (_, at) => `part${String(at + 1)}`);
}

/** The words for a shape without a name of its own. */
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
