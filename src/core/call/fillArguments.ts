import type { Reference } from "../contract/model.js";
import { resolveReference, type ShapeTable } from "../contract/resolveShape.js";
import { isData } from "../text/parseData.js";
import type { TakenArgument } from "./readArguments.js";

export interface FilledArguments {
  readonly values: Readonly<Record<string, unknown>>;
  /** The paths of missing values, which get samples or must be supplied. */
  readonly missing: readonly string[];
}

/**
 * Adds samples for missing required values, also inside records that were given in part.
 *
 * @param given the values by argument name
 * @param taken the arguments of the call
 * @param sampleOf returns a sample for a whole argument; undefined if there is none
 */
export function fillArguments(
  given: Readonly<Record<string, unknown>>,
  taken: readonly TakenArgument[],
  { types, sampleOf }: { readonly types: ShapeTable; readonly sampleOf: (name: string) => unknown },
): FilledArguments {
  const values: Record<string, unknown> = { ...given };
  const missing: string[] = [];
  for (const { name, type, required } of taken) {
    const isGiven = Object.hasOwn(given, name);
    if (!isGiven && !required) continue;
    const filled = fill(type, isGiven ? given[name] : undefined, {
      sample: sampleOf(name),
      filling: { path: name, types, missing },
    });
    if (filled !== undefined) values[name] = filled;
  }
  return { values, missing };
}

interface Filling {
  readonly path: string;
  readonly types: ShapeTable;
  readonly missing: string[];
}

function fill(
  type: Reference,
  given: unknown,
  { sample, filling: { path, types, missing } }: { readonly sample: unknown; readonly filling: Filling },
): unknown {
  if (given === undefined) {
    missing.push(path);
    return sample;
  }
  const { shape } = resolveReference(type, types);
  if (shape.kind !== "record" || !isData(given)) return given;
  const whole: Record<string, unknown> = { ...given };
  for (const field of shape.fields) {
    const isGiven = Object.hasOwn(given, field.name);
    if (!isGiven && !field.required) continue;
    const below = isData(sample) ? sample[field.name] : undefined;
    const filled = fill(field.type, isGiven ? given[field.name] : undefined, {
      sample: below,
      filling: {
        path: `${path}.${field.name}`,
        types,
        missing,
      },
    });
    if (filled !== undefined) whole[field.name] = filled;
  }
  return whole;
}
