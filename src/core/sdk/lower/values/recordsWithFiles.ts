import type { Field, RecordShape, Shape } from "../../../contract/model.js";
import { shapeFacts } from "../../../contract/shapeFacts.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { PlannedType } from "../../sdkPlan.js";

/** Returns the records that contain files: as a field, in a list, or in a record inside them. */
export function recordsWithFiles(types: ReadonlyMap<string, PlannedType>): ReadonlySet<RecordShape> {
  const all = [...types.values()];
  // Few contracts have files.
  if (!all.some(({ shape }) => shapeFacts(shape).hasBytes)) return new Set();
  const records = all.flatMap(({ shape }) => (shape.kind === "record" ? [shape] : []));
  const innerOf = (field: Field): Shape => {
    const shape = resolveShape(field.type.shape, types);
    return shape.kind === "list" ? resolveShape(shape.item.shape, types) : shape;
  };
  const found = new Set(records.filter(({ fields }) => fields.some((field) => innerOf(field).kind === "bytes")));
  if (found.size === 0) return found;
  const holders = new Map<Shape, RecordShape[]>();
  for (const record of records)
    for (const field of record.fields) {
      const inner = innerOf(field);
      const known = holders.get(inner);
      if (known) known.push(record);
      else holders.set(inner, [record]);
    }
  // Records that are added during the loop are read too.
  for (const record of found) for (const holder of holders.get(record) ?? []) found.add(holder);
  return found;
}
