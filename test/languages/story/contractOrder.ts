import type { Reference, Shape } from "../../../src/core/contract/model.js";
import { resolveReference, type ShapeTable } from "../../../src/core/contract/resolveShape.js";

/**
 * Returns a value in the form that all languages report: declared fields in the contract's order, without fields that
 * are null or absent. Values that a language decodes are converted to data before.
 */
export function inContractOrder(value: unknown, reference: Reference, types: ShapeTable): unknown {
  const { shape } = resolveReference(reference, types);
  const inside = (each: unknown, of: Reference): unknown => inContractOrder(each, of, types);
  if (value === null || value === undefined) return null;
  if (Array.isArray(value)) {
    if (shape.kind === "list") return value.map((each) => inside(each, shape.item));
    if (shape.kind === "tuple") return value.map((each, at) => inside(each, shape.items[at] ?? unsaid));
    return value.map((each) => inside(each, unsaid));
  }
  if (typeof value !== "object") return value;
  const record = value as Readonly<Record<string, unknown>>;
  switch (shape.kind) {
    case "record":
      return withoutNulls(shape.fields.map(({ name, type }) => [name, inside(record[name], type)]));
    case "map":
      return withoutNulls(
        Object.keys(record)
          .sort()
          .map((name) => [name, inside(record[name], shape.value)]),
      );
    case "union": {
      const member = memberOf(record, shape, types);
      return inside(value, member ?? unsaid);
    }
    default:
      return withoutNulls(
        Object.keys(record)
          .sort()
          .map((name) => [name, inside(record[name], unsaid)]),
      );
  }
}

const unsaid: Reference = { shape: { kind: "any" }, nullable: true };

function memberOf(
  record: Readonly<Record<string, unknown>>,
  { members, tag }: Extract<Shape, { readonly kind: "union" }>,
  types: ShapeTable,
): Reference | undefined {
  if (tag) return members[tag.values.findIndex((values) => values.includes(String(record[tag.field])))];
  return members.find((member) => {
    const { shape } = resolveReference(member, types);
    return shape.kind === "record" && shape.fields.every(({ name, required }) => !required || name in record);
  });
}

function withoutNulls(entries: readonly (readonly [string, unknown])[]): Record<string, unknown> {
  return Object.fromEntries(entries.filter(([, each]) => each !== null && each !== undefined));
}
