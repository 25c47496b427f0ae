import type { Place } from "./place.js";
import type { Position } from "./position.js";
import { ShownText } from "./shownText.js";

/** Finds line and column of a place in its text. Who asks for many places of one text keeps a `ShownText`. */
export function findPosition(place: Place, text: string): Position {
  return new ShownText(text).position(place);
}
