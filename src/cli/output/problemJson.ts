import type { Place } from "../../core/problem/place.js";
import type { Problem } from "../../core/problem/problem.js";
import type { ShownTexts } from "../../core/problem/shownTexts.js";

/** Returns a place for `--json`, with line and column if the text is available. */
export function placeJson(place: Place, texts: ShownTexts): object {
  const position = texts.position(place);
  return {
    file: place.document,
    line: position?.line,
    column: position?.column,
    ...("pointer" in place ? { pointer: place.pointer } : {}),
  };
}

/** Returns a problem for `--json`. */
export function problemJson({ code, level, message, places, why, hint }: Problem, texts: ShownTexts): object {
  return { code, level, message, places: places.map((place) => placeJson(place, texts)), why, hint };
}
