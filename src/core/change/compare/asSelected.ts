import { printCoordinate } from "../../use/coordinate.js";
import type { Finding } from "../rule.js";
import { verdicts } from "../verdict.js";

/**
 * Returns which selections of a union or interface a new type affects: those that distinguish types, and those that
 * read a key from all types that the new one does not have. With open unions, a selection that distinguishes types
 * reads such keys only from the types it knows.
 *
 * @param types the interfaces and unions
 * @param isOpen whether unions of the SDK are open
 */
export function asSelected(types: readonly string[], isOpen: boolean): Pick<Finding, "coordinates" | "verdictAt"> {
  const asked = types.map((type) => printCoordinate(type, "toldApart"));
  const common = types.flatMap((type) => [
    ...(isOpen ? [] : [printCoordinate(type, "sharedKeyToldApart")]),
    printCoordinate(type, "sharedKey"),
  ]);
  return {
    coordinates: [...asked, ...common],
    verdictAt: new Map(common.map((each) => [each, verdicts.bothBreak])),
  };
}
