import type { Reference } from "../../contract/model.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";

/** The media types that an argument can be sent in, the usual one first, with what is sent in each; none where it is no body. */
export function bodyWays({ source, type }: PlannedArgument): { mediaType: string; type: Reference }[] {
  if (source.kind !== "body") return [];
  return [
    { mediaType: source.content.mediaType, type },
    ...source.others.map((other) => ({ mediaType: other.content.mediaType, type: other.type })),
  ];
}
