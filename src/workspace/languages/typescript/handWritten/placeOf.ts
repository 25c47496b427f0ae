import type ts from "typescript";
import type { OffsetPlace } from "../../../../core/problem/place.js";
import type { AppDocument } from "../appProgram.js";

/** Returns the place of a node in the source that people know; undefined for added code. */
export function placeOf(node: ts.Node, { document, module }: AppDocument): OffsetPlace | undefined {
  const range = [node.getStart(), node.end] as const;
  const shown = module ? module.mapped.sourceRange(...range) : range;
  return shown && { document, offset: shown[0], length: shown[1] - shown[0] };
}
