import type { Reference } from "../../contract/model.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";

/**
 * Returns the media types in which an argument can be sent, with their types, the default one first. It is empty unless
 * the argument is a body.
 */
export function bodyWays({ source, type }: PlannedArgument): { mediaType: string; type: Reference }[] {
  if (source.kind !== "body") return [];
  return [
    { mediaType: source.content.mediaType, type },
    ...source.others.map((other) => ({ mediaType: other.content.mediaType, type: other.type })),
  ];
}
