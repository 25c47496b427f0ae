import type { Field, RecordShape } from "../../../contract/model.js";
import { spelled } from "../names/identifiers.js";
import { oneOfClassNames, recordNames } from "../names/names.js";

/**
 * Returns a value of an input with exactly one given field, as source: `BerthBy.Number(number = "N-07")`.
 *
 * @param type the input as source
 * @param made the value of the field as source
 */
export function oneOfText(
  chosen: Field,
  { record, type, made }: { readonly record: RecordShape; readonly type: string; readonly made: string },
): string {
  const name = oneOfClassNames(record, type).get(chosen) ?? "";
  return `${type}.${name}(${spelled(recordNames(record).of(chosen))} = ${made})`;
}
