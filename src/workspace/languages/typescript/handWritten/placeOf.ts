import type ts from "typescript";
import type { OffsetPlace } from "../../../../core/problem/place.js";
import type { AppDocument } from "../appProgram.js";

/** Where a node of a program stands in the source that people know; undefined for what was added to it. */
export function placeOf(node: ts.Node, { document, module }: AppDocument): OffsetPlace | undefined {
  const range = [node.getStart(), node.end] as const;
  const shown = module ? module.mapped.sourceRange(...range) : range;
  return shown && { document, offset: shown[0], length: shown[1] - shown[0] };
}
