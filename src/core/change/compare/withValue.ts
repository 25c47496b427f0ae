import { memberOf, type Coordinate } from "../../use/coordinate.js";

/** Returns the coordinates of an enum, and of one of its values. */
export function withValue(coordinates: readonly Coordinate[], value: string | number | boolean): Coordinate[] {
  return [...coordinates, ...ofValue(coordinates, value)];
}

/** Returns the coordinates of one value of an enum alone. */
export function ofValue(coordinates: readonly Coordinate[], value: string | number | boolean): Coordinate[] {
  return coordinates.map((each) => memberOf(each, String(value)));
}
