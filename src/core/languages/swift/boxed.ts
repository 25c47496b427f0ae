import type { Field, Shape } from "../../contract/model.js";
import { circles } from "../../sdk/lower/circles.js";
import { isAlias } from "../../sdk/lower/wrappedAliases.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";

/** What holds itself as a value, and so has to be kept elsewhere. */
export interface Boxed {
  /** Ids of the unions whose cases are kept elsewhere. */
  readonly unions: ReadonlySet<string>;
  /** Ids of other names for something, whose values are kept in a box. */
  readonly aliases: ReadonlySet<string>;
  /** Fields that are kept in a box. */
  readonly fields: ReadonlySet<Field>;
}

/**
 * Finds the values that would hold themselves: lists and maps are kept elsewhere anyway.
 *
 * @param wrapped ids of names for something that are structs
 */
export function boxed(types: ReadonlyMap<string, PlannedType>, wrapped: ReadonlySet<string>): Boxed {
  const cut = new Set<string>();
  const unions = new Set<string>();
  const aliases = new Set<string>();
  const holdThemselves = (found: Set<string>, isOne: (type: PlannedType) => boolean): void => {
    const asked = [...types.values()].filter(isOne);
    if (asked.length === 0) return;
    const isCircle = holdingEachOther(types, cut);
    for (const type of asked) if (held(type.shape).some((key) => isCircle(key, type.id))) found.add(type.id);
    for (const id of found) cut.add(id);
  };
  holdThemselves(unions, ({ shape }) => shape.kind === "union");
  holdThemselves(aliases, ({ id }) => wrapped.has(id));
  const fields = new Set<Field>();
  const isCircle = holdingEachOther(types, cut);
  for (const { id, shape } of types.values())
    if (shape.kind === "record")
      for (const field of shape.fields)
        if (heldBy(field.type.shape).some((key) => isCircle(key, id))) fields.add(field);
  return { unions, aliases, fields };
}

/** Whether two types hold each other as values, through whatever lies between. */
function holdingEachOther(
  types: ReadonlyMap<string, PlannedType>,
  cut: ReadonlySet<string>,
): (one: string, other: string) => boolean {
  return circles(types.keys(), (key) => {
    const shape = cut.has(key) ? undefined : types.get(key)?.shape;
    return shape ? held(shape) : [];
  });
}

function held(shape: Shape): string[] {
  switch (shape.kind) {
    case "record":
      return shape.fields.flatMap(({ type }) => heldBy(type.shape));
    case "union":
      return shape.members.flatMap((member) => heldBy(member.shape));
    default:
      return heldBy(shape);
  }
}

function heldBy(shape: Shape): string[] {
  if (shape.kind === "named") return [shape.key];
  if (shape.kind !== "tuple" || !isAlias(shape)) return [];
  return shape.items.flatMap((item) => heldBy(item.shape));
}
