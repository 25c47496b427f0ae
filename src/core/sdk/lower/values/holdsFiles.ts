import type { Shape } from "../../../contract/model.js";
import { reachedTypes } from "../../../contract/reachedTypes.js";
import type { GraphqlCall, PlannedType } from "../../sdkPlan.js";

/** Returns whether the variables of a GraphQL call can contain files. */
export function holdsFiles(call: GraphqlCall, types: ReadonlyMap<string, PlannedType>): boolean {
  const shapes: Shape[] = call.variables.map((field) => field.type.shape);
  const reached = reachedTypes(shapes, (id) => types.get(id)?.shape);
  return [...shapes, ...[...reached].flatMap((id) => types.get(id)?.shape ?? [])].some(holdsBytes);
}

function holdsBytes(shape: Shape): boolean {
  if (shape.kind === "bytes") return true;
  if (shape.kind === "list") return holdsBytes(shape.item.shape);
  return shape.kind === "record" && shape.fields.some((field) => holdsBytes(field.type.shape));
}
