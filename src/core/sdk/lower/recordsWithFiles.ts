import type { RecordShape } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedType } from "../sdkPlan.js";

/** The records that hold files: as a field, in a list, or in a record that they hold. */
export function recordsWithFiles(types: ReadonlyMap<string, PlannedType>): ReadonlySet<RecordShape> {
  const found = new Set<RecordShape>();
  const holders = new Map<RecordShape, RecordShape[]>();
  for (const { shape: record } of types.values()) {
    if (record.kind !== "record") continue;
    for (const { type } of record.fields) {
      const shape = resolveShape(type.shape, types);
      const inner = shape.kind === "list" ? resolveShape(shape.item.shape, types) : shape;
      if (inner.kind === "bytes") found.add(record);
      if (inner.kind !== "record") continue;
      const known = holders.get(inner);
      if (known) known.push(record);
      else holders.set(inner, [record]);
    }
  }
  // What is added while the set is gone through is gone through as well.
  for (const record of found) for (const holder of holders.get(record) ?? []) found.add(holder);
  return found;
}
