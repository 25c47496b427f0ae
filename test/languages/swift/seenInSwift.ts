import type { Reference } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import { recordNames, unionCases } from "../../../src/core/languages/swift/names.js";
import type { PlannedType } from "../../../src/core/sdk/sdkPlan.js";
import { itemOf } from "../vectors/asTyped.js";
import type { Data } from "../vectors/vectorRow.js";

type Types = ReadonlyMap<string, PlannedType>;
type Fields = Readonly<Record<string, Data>>;

/**
 * What an app in Swift sees, as rows write it.
 *
 * @param dumped as `Dump.swift` writes it
 */
export function seenInSwift(dumped: Data, reference: Reference | undefined, types: Types): unknown {
  if (dumped === null || typeof dumped !== "object") return dumped;
  const shape = reference && resolveShape(reference.shape, types);
  if (Array.isArray(dumped))
    return (dumped as readonly Data[]).map((each, at) => seenInSwift(each, itemOf(shape, at), types));
  const fields = dumped as Fields;
  if ("$json" in fields) return fields["$json"];
  if ("$long" in fields)
    return shape?.kind === "integer" && shape.format === "int64"
      ? { $integer: fields["$long"] }
      : Number(fields["$long"]);
  if ("$instant" in fields || "$bytes" in fields) return fields;
  if ("$map" in fields) {
    const of = shape?.kind === "map" ? shape.value : undefined;
    return Object.fromEntries(
      Object.entries(fields["$map"] as Fields).map(([key, each]) => [key, seenInSwift(each, of, types)]),
    );
  }
  if ("$case" in fields) {
    const value = fields["$value"] ?? null;
    if (shape?.kind !== "union") return seenInSwift(value, undefined, types);
    const member = [...unionCases(shape, types)].find(([, name]) => name === fields["$case"])?.[0];
    return seenInSwift(value, member, types);
  }
  const properties = fields["$record"] as Fields;
  if (shape?.kind === "tuple") {
    const items = Object.entries(properties).flatMap(([name, each]) => (name === "rest" ? (each as Data[]) : [each]));
    return items.map((each, at) => seenInSwift(each, itemOf(shape, at), types));
  }
  if (shape?.kind !== "record") return seenInSwift(properties["value"] ?? null, reference, types);
  const names = recordNames(shape);
  const own = shape.fields.flatMap((field): [string, unknown][] => {
    // What is kept under another name than the property's begins with a low line.
    const name = names.of(field);
    const value = properties[name in properties ? name : `_${name}`];
    if (value === undefined || isAbsent(value) || (value === null && !field.required && !field.type.nullable))
      return [];
    return [[field.name, seenInSwift(value, field.type, types)]];
  });
  const others = properties[names.others] as Fields | undefined;
  const more = Object.entries((others?.["$map"] ?? {}) as Fields).map(([key, each]): [string, unknown] => [
    key,
    seenInSwift(each, shape.rest, types),
  ]);
  return Object.fromEntries([...own, ...more]);
}

function isAbsent(value: Data): boolean {
  return typeof value === "object" && value !== null && "$absent" in value;
}
