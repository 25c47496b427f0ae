import type { Field, Shape } from "../../../contract/model.js";
import { shapeFacts } from "../../../contract/shapeFacts.js";
import { circles } from "../../../sdk/lower/values/circles.js";
import { isAlias } from "../../../sdk/lower/values/wrappedAliases.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";

/** The values that contain themselves, and therefore need indirect storage. */
export interface Boxed {
  /** The ids of the unions with indirect cases. */
  readonly unions: ReadonlySet<string>;
  /** The ids of other names for something, whose values are in a box. */
  readonly aliases: ReadonlySet<string>;
  /** The fields that are in a box. */
  readonly fields: ReadonlySet<Field>;
}

/**
 * Returns the values that would contain themselves. Lists and maps have indirect storage anyway.
 *
 * @param wrapped the ids of names that are structs
 */
export function boxed(types: ReadonlyMap<string, PlannedType>, wrapped: ReadonlySet<string>): Boxed {
  // Most types of a large contract hold no other one. They are in no circle.
  const holds = new Map<string, readonly string[]>();
  for (const { id, shape } of types.values()) {
    if (shapeFacts(shape).names.length > 0) holds.set(id, held(shape));
  }
  const cut = new Set<string>();
  let isCircle = holdingEachOther(holds, cut);
  const holdingThemselves = (isOne: (type: PlannedType) => boolean): Set<string> => {
    const found = new Set<string>();
    for (const type of types.values())
      if (isOne(type) && holds.get(type.id)?.some((key) => isCircle(key, type.id)) === true) found.add(type.id);
    for (const id of found) cut.add(id);
    if (found.size > 0) isCircle = holdingEachOther(holds, cut);
    return found;
  };
  const unions = holdingThemselves(({ shape }) => shape.kind === "union");
  const aliases = holdingThemselves(({ id }) => wrapped.has(id));
  const fields = new Set<Field>();
  for (const id of holds.keys()) {
    const shape = types.get(id)?.shape;
    if (shape?.kind !== "record") continue;
    for (const field of shape.fields) if (heldBy(field.type.shape).some((key) => isCircle(key, id))) fields.add(field);
  }
  return { unions, aliases, fields };
}

/** Whether two types contain each other as values, directly or through others. */
function holdingEachOther(
  holds: ReadonlyMap<string, readonly string[]>,
  cut: ReadonlySet<string>,
): (one: string, other: string) => boolean {
  return circles(holds.keys(), (key) => (cut.has(key) ? [] : (holds.get(key) ?? [])));
}

function held(shape: Shape): readonly string[] {
  switch (shape.kind) {
    case "record":
      return shape.fields.flatMap(({ type }) => heldBy(type.shape));
    case "union":
      return shape.members.flatMap((member) => heldBy(member.shape));
    default:
      return heldBy(shape);
  }
}

const nothing: readonly string[] = [];

function heldBy(shape: Shape): readonly string[] {
  if (shape.kind === "named") return [shape.key];
  if (shape.kind !== "tuple" || !isAlias(shape)) return nothing;
  return shape.items.flatMap((item) => heldBy(item.shape));
}
