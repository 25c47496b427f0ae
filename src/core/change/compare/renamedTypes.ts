import { argumentOf } from "../../use/coordinate.js";
import type { GraphqlContract, TypeDefinition } from "../../contract/model.js";
import { namedTypes } from "../../contract/reachedTypes.js";
import { mayBeRenamed } from "./mayBeRenamed.js";
import { partsShared } from "./partsShared.js";

/**
 * Returns the new names of types that were perhaps renamed, by their old names: a removed type and a new one of its
 * kind with most of its parts. Most remaining places with the old name have the new one. Without such places, names or
 * descriptions must be similar. A type with a second candidate, on either side, is left out.
 */
export function renamedTypes(before: GraphqlContract, after: GraphqlContract): Map<string, string> {
  const gone = [...before.types.values()].filter(({ key }) => !after.types.has(key));
  const fresh = [...after.types.values()].filter(({ key }) => !before.types.has(key));
  const found = new Map<string, string>();
  for (const root of ["query", "mutation", "subscription"] as const) {
    const from = before.roots[root];
    const to = after.roots[root];
    if (from !== undefined && to !== undefined && from !== to && !after.types.has(from)) found.set(from, to);
  }
  if (gone.length === 0 || fresh.length === 0) return found;
  const places = { before: placesOf(before), after: placesOf(after) };
  const mayBecome = (from: TypeDefinition, to: TypeDefinition): boolean => {
    if (!isAlike(from, to)) return false;
    const kept = [...(places.before.of.get(from.key) ?? [])].filter((place) => places.after.all.has(place));
    if (kept.length === 0) return mayBeRenamed(from, to);
    const moved = kept.filter((place) => places.after.of.get(to.key)?.has(place) === true);
    return moved.length * 2 > kept.length;
  };
  for (const type of gone) {
    if (found.has(type.key)) continue;
    const [only, ...others] = fresh.filter((each) => mayBecome(type, each));
    if (only && others.length === 0 && gone.every((each) => each === type || !mayBecome(each, only)))
      found.set(type.key, only.key);
  }
  return found;
}

interface Places {
  /** The places with a type's name, by the name. */
  readonly of: ReadonlyMap<string, ReadonlySet<string>>;
  readonly all: ReadonlySet<string>;
}

/** The fields, arguments, unions and types that contain a type's name. */
function placesOf(contract: GraphqlContract): Places {
  const of = new Map<string, Set<string>>();
  const all = new Set<string>();
  const add = (place: string, names: Iterable<string>): void => {
    all.add(place);
    for (const name of names) of.set(name, (of.get(name) ?? new Set()).add(place));
  };
  for (const field of contract.fields.values()) {
    add(field.coordinate, namedTypes([field.type.shape]));
    for (const { name, type } of field.arguments) add(argumentOf(field.coordinate, name), namedTypes([type.shape]));
  }
  for (const type of contract.types.values()) {
    add(`${type.key}:`, type.implements ?? []);
    if (type.role === "union") add(`${type.key}|`, namedTypes([type.shape]));
  }
  return { of, all };
}

function isAlike(a: TypeDefinition, b: TypeDefinition): boolean {
  return a.role === b.role && partsShared(a.shape, b.shape);
}
