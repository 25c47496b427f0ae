import type { Field, RecordShape, Reference, Shape } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import type { PlannedType } from "../../../src/core/sdk/sdkPlan.js";
import { itemOf } from "./asTyped.js";
import type { Data } from "./vectorRow.js";

export type Types = ReadonlyMap<string, PlannedType>;
export type Fields = Readonly<Record<string, Data>>;

/** The value to look at, and its type. */
export interface Seen {
  readonly dumped: Data;
  readonly as: Reference | undefined;
}

/** How values of a language are written by its `Dump`, as far as languages differ in it. */
export interface DumpOf {
  readonly names: (record: RecordShape) => { readonly of: (field: Field) => string; readonly others: string };
  /** Returns a member of a union from the value around it; undefined if a value is not such a member. */
  readonly member: (fields: Fields, shape: Shape | undefined, types: Types) => Seen | undefined;
  /** Returns the prefix of a property that is stored under another name; absent if there are none. */
  readonly kept?: string;
}

/** Returns what an app sees, in the form of rows, from its language's dump. */
export function seenAs({ dumped, as }: Seen, types: Types, language: DumpOf): unknown {
  const see = (value: Data, reference: Reference | undefined): unknown =>
    seenAs({ dumped: value, as: reference }, types, language);
  if (dumped === null || typeof dumped !== "object") return dumped;
  const shape = as && resolveShape(as.shape, types);
  if (Array.isArray(dumped)) return (dumped as readonly Data[]).map((each, at) => see(each, itemOf(shape, at)));
  const fields = dumped as Fields;
  if ("$json" in fields) return fields["$json"];
  if ("$long" in fields)
    return shape?.kind === "integer" && shape.format === "int64"
      ? { $integer: fields["$long"] }
      : Number(fields["$long"]);
  if ("$instant" in fields) return { $instant: new Date(fields["$instant"] as string).toISOString() };
  if ("$bytes" in fields) return fields;
  if ("$map" in fields)
    return mapOf(fields["$map"], (each) => see(each, shape?.kind === "map" ? shape.value : undefined));
  const member = language.member(fields, shape, types);
  if (member) return see(member.dumped, member.as);
  const properties = fields["$record"] as Fields;
  if (shape?.kind === "tuple") {
    const items = Object.entries(properties).flatMap(([name, each]) => (name === "rest" ? (each as Data[]) : [each]));
    return items.map((each, at) => see(each, itemOf(shape, at)));
  }
  if (shape?.kind !== "record") return see(properties["value"] ?? null, as);
  const names = language.names(shape);
  const own = shape.fields.flatMap((field): [string, unknown][] => {
    const name = names.of(field);
    const value = properties[name in properties ? name : `${language.kept ?? ""}${name}`];
    if (value === undefined || isAbsent(value) || (value === null && !field.required && !field.type.nullable))
      return [];
    return [[field.name, see(value, field.type)]];
  });
  const others = properties[names.others] as Fields | undefined;
  return { ...Object.fromEntries(own), ...mapOf(others?.["$map"] ?? {}, (each) => see(each, shape.rest)) };
}

function mapOf(dumped: Data | undefined, see: (each: Data) => unknown): Record<string, unknown> {
  return Object.fromEntries(Object.entries(dumped as Fields).map(([key, each]) => [key, see(each)]));
}

function isAbsent(value: Data): boolean {
  return typeof value === "object" && value !== null && "$absent" in value;
}
