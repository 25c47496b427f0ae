import { printCoordinate } from "../../use/coordinate.js";
import type { Finding } from "../rule.js";
import { verdicts } from "../verdict.js";

/**
 * What of query documents a new type hits, of a union or interface that selects it: those who ask which type a value is;
 * and those who read a key of every type alike that the new one does not answer. A reader of open unions that asks which
 * type it is leaves such keys to the types it knows.
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
