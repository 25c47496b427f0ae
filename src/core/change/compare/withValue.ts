/** Coordinates of a choice, and of one of its values. */
export function withValue(coordinates: readonly string[], value: string | number | boolean): string[] {
  return [...coordinates, ...coordinates.map((coordinate) => `${coordinate}.${String(value)}`)];
}

/** Coordinates of one value of a choice alone. */
export function ofValue(coordinates: readonly string[], value: string | number | boolean): string[] {
  return coordinates.map((coordinate) => `${coordinate}.${String(value)}`);
}
