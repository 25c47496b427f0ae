import type { Place } from "./place.js";
import type { Position } from "./position.js";
import { ShownText } from "./shownText.js";

/**
 * Returns the line and column of a place in its text. For many places of one text, use a `ShownText`.
 *
 * @param place a pointer or an offset
 * @param text the text of the place's document
 */
export function findPosition(place: Place, text: string): Position {
  return new ShownText(text).position(place);
}
