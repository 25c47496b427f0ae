import { findPosition } from "../core/problem/findPosition.js";
import type { Place } from "../core/problem/place.js";
import type { Problem } from "../core/problem/problem.js";
import type { TextOf } from "../core/report/renderProblem.js";

/** A place as `--json` gives it: line and column where the text is at hand. */
export function placeJson(place: Place, textOf: TextOf): object {
  const text = textOf(place.document);
  const { line, column } = text === undefined ? { line: undefined, column: undefined } : findPosition(place, text);
  return { file: place.document, line, column, ...("pointer" in place ? { pointer: place.pointer } : {}) };
}

/** A problem as `--json` gives it. */
export function problemJson({ code, level, message, places, why, hint }: Problem, textOf: TextOf): object {
  return { code, level, message, places: places.map((place) => placeJson(place, textOf)), why, hint };
}
