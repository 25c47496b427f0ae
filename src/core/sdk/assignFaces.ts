import type { Reference } from "../contract/model.js";
import { TypeGraph } from "../contract/reachedTypes.js";
import type { PlannedType } from "./sdkPlan.js";

/**
 * Marks the types that only requests use. They are printed as an app's input, which may be more lenient than its
 * output. Names do not depend on this.
 *
 * @param types changed in place
 * @param requests the types of requests
 * @param answers the types of responses
 */
export function assignFaces(
  types: Map<string, PlannedType>,
  requests: readonly Reference[],
  answers: readonly Reference[],
): void {
  const graph = new TypeGraph((id) => types.get(id)?.shape);
  const sent = graph.reached(requests.map(({ shape }) => shape));
  const answered = graph.reached(answers.map(({ shape }) => shape));
  for (const [id, type] of types) {
    if (type.face !== "both") continue;
    if (sent.has(id) && !answered.has(id)) types.set(id, { ...type, face: "request" });
    else if (answered.has(id) && !sent.has(id)) types.set(id, { ...type, face: "answer" });
  }
}
