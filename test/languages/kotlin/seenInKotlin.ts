import type { Reference } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import { recordNames } from "../../../src/core/languages/kotlin/names.js";
import type { PlannedType } from "../../../src/core/sdk/sdkPlan.js";
import { itemOf } from "../vectors/asTyped.js";
import type { Data } from "../vectors/vectorRow.js";

type Types = ReadonlyMap<string, PlannedType>;
type Fields = Readonly<Record<string, Data>>;

/**
 * What an app in Kotlin sees, as rows write it.
 *
 * @param dumped as `Dump.kt` writes it
 */
export function seenInKotlin(dumped: Data, reference: Reference | undefined, types: Types): unknown {
  if (dumped === null || typeof dumped !== "object") return dumped;
  const shape = reference && resolveShape(reference.shape, types);
  if (Array.isArray(dumped))
    return (dumped as readonly Data[]).map((each, at) => seenInKotlin(each, itemOf(shape, at), types));
  const fields = dumped as Fields;
  if ("$json" in fields) return fields["$json"];
  if ("$long" in fields)
    return shape?.kind === "integer" && shape.format === "int64"
      ? { $integer: fields["$long"] }
      : Number(fields["$long"]);
  if ("$instant" in fields) return { $instant: new Date(fields["$instant"] as string).toISOString() };
  if ("$bytes" in fields) return fields;
  if ("$map" in fields) {
    const of = shape?.kind === "map" ? shape.value : undefined;
    return Object.fromEntries(
      Object.entries(fields["$map"] as Fields).map(([key, each]) => [key, seenInKotlin(each, of, types)]),
    );
  }
  const properties = fields["$record"] as Fields;
  if (shape?.kind === "union") {
    const { value, json } = properties;
    if ((fields["$class"] as string).endsWith("$Other")) return (json as Fields)["$json"];
    const member = shape.members.find((each) => fits(properties, each, types));
    return seenInKotlin(member ? dumped : (value ?? null), member, types);
  }
  if (shape?.kind === "tuple") {
    const items = Object.entries(properties).flatMap(([name, each]) => (name === "rest" ? (each as Data[]) : [each]));
    return items.map((each, at) => seenInKotlin(each, itemOf(shape, at), types));
  }
  if (shape?.kind !== "record") return seenInKotlin(properties["value"] ?? null, undefined, types);
  const names = recordNames(shape);
  const own = shape.fields.flatMap((field): [string, unknown][] => {
    const value = properties[names.of(field)];
    if (value === undefined || isAbsent(value) || (value === null && !field.required && !field.type.nullable))
      return [];
    return [[field.name, seenInKotlin(value, field.type, types)]];
  });
  const others = properties[names.others] as Fields | undefined;
  const more = Object.entries((others?.["$map"] ?? {}) as Fields).map(([key, each]): [string, unknown] => [
    key,
    seenInKotlin(each, shape.rest, types),
  ]);
  return Object.fromEntries([...own, ...more]);
}

function isAbsent(value: Data): boolean {
  return typeof value === "object" && value !== null && "$absent" in value;
}

function fits(properties: Fields, { shape }: Reference, types: Types): boolean {
  const record = resolveShape(shape, types);
  if (record.kind !== "record") return false;
  const names = record.fields.map((field) => recordNames(record).of(field)).sort();
  return (
    JSON.stringify(names) ===
    JSON.stringify(
      Object.keys(properties)
        .filter((name) => name !== "otherKeys")
        .sort(),
    )
  );
}
