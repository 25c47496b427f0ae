import type { Place } from "../../core/problem/place.js";
import type { Problem } from "../../core/problem/problem.js";
import type { ShownTexts } from "../../core/problem/shownTexts.js";

/** A place as `--json` gives it: line and column where the text is at hand. */
export function placeJson(place: Place, texts: ShownTexts): object {
  const position = texts.position(place);
  return {
    file: place.document,
    line: position?.line,
    column: position?.column,
    ...("pointer" in place ? { pointer: place.pointer } : {}),
  };
}

/** A problem as `--json` gives it. */
export function problemJson({ code, level, message, places, why, hint }: Problem, texts: ShownTexts): object {
  return { code, level, message, places: places.map((place) => placeJson(place, texts)), why, hint };
}
