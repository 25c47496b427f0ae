import type { ChoiceValue, RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { PlannedType } from "../../sdkPlan.js";

/** How the member of a union is recognised from a value. */
export type TellingApart =
  /** By the value of a field. Each member has its values. */
  | { readonly by: "tag"; readonly field: string; readonly rows: readonly TagRow[] }
  /** By its form: the first one that matches, in this order. */
  | { readonly by: "form"; readonly forms: readonly MemberForm[] };

export interface TagRow {
  readonly value: string;
  /** The member's position in the union. */
  readonly at: number;
}

/** The form of values of a union member. */
export interface MemberForm {
  readonly at: number;
  readonly kind: "text" | "number" | "list" | "record";
  /** For records: the required fields. */
  readonly needs: readonly string[];
  /** For records: fields with a fixed set of values that identify the member; absent if there are none. */
  readonly constants?: readonly FieldConstants[];
  /** The only possible values. */
  readonly values?: readonly (string | number | boolean)[];
}

/** The only possible values of a field. */
export interface FieldConstants {
  readonly name: string;
  readonly values: readonly ChoiceValue[];
}

type Types = ReadonlyMap<string, PlannedType>;

/**
 * Returns how the members of a union are distinguished. Without a tag, the most specific member comes first.
 *
 * @param isDecoded whether a member is converted for the app. Of plain values, one that is not converted comes first,
 * because any value matches it
 */
export function tellApart(
  union: UnionShape,
  types: Types,
  isDecoded: (member: Reference) => boolean = () => false,
): TellingApart {
  const { tag, members } = union;
  if (tag && members.every((member) => resolveShape(member.shape, types).kind === "record"))
    return {
      by: "tag",
      field: tag.field,
      rows: members.flatMap((_, at) => (tag.values[at] ?? []).map((value) => ({ value, at }))),
    };
  const found = members.flatMap((member, at) => {
    const decoded = isDecoded(member);
    return formsOf(member.shape, at, { isDecoded: decoded, types }).map((form) => ({
      form,
      // Listed values count more than a form, and a form more than required fields.
      rank: (form.values ? -1000 : form.constants ? -750 : decoded ? 0 : -500) - form.needs.length,
    }));
  });
  return { by: "form", forms: found.sort((a, b) => a.rank - b.rank).map(({ form }) => form) };
}

function formsOf(
  shape: Shape,
  at: number,
  { isDecoded, types }: { readonly isDecoded: boolean; readonly types: Types },
): MemberForm[] {
  const inner = resolveShape(shape, types);
  switch (inner.kind) {
    case "text":
      return [{ at, kind: "text", needs: [] }];
    case "integer":
    case "number":
      return [{ at, kind: "number", needs: [] }];
    case "literal":
      return [{ at, kind: typeof inner.value === "string" ? "text" : "number", needs: [], values: [inner.value] }];
    case "choice":
      return [{ at, kind: "text", needs: [], values: inner.values.map(({ value }) => value) }];
    case "list":
    case "tuple":
      return [{ at, kind: "list", needs: [] }];
    case "record":
      return recordForms(inner, at, types);
    case "map":
      return [{ at, kind: "record", needs: [] }];
    case "union":
      // A value that is the same in JSON and in the app does not have to be recognised.
      return isDecoded ? (["record", "text", "number", "list"] as const).map((kind) => ({ at, kind, needs: [] })) : [];
    default:
      return [];
  }
}

/**
 * A record is recognised by its required fields, and by those of them with a fixed set of values. An enum may get other
 * values than listed, so its record is also recognised without it, if no other matches better.
 */
function recordForms({ fields }: RecordShape, at: number, types: Types): (MemberForm & { readonly kind: "record" })[] {
  const required = fields.filter((field) => field.required);
  const needs = required.map(({ name }) => name);
  const constants = required.flatMap(({ name, type }) => {
    const shape = resolveShape(type.shape, types);
    if (type.nullable || (shape.kind !== "literal" && shape.kind !== "choice")) return [];
    const values = shape.kind === "literal" ? [shape.value] : shape.values.map(({ value }) => value);
    return values.length > mostConstants ? [] : [{ name, values, isFixed: shape.kind === "literal" }];
  });
  const form = (of: typeof constants): MemberForm & { readonly kind: "record" } => ({
    at,
    kind: "record",
    needs,
    ...(of.length > 0 ? { constants: of.map(({ name, values }) => ({ name, values })) } : {}),
  });
  const fixed = constants.filter(({ isFixed }) => isFixed);
  return fixed.length === constants.length ? [form(constants)] : [form(constants), form(fixed)];
}

/** More values than these are too little evidence of a record to be written out. */
const mostConstants = 50;

/** The form of values of a union member, in a language where every member must be recognised. */
export interface AnyMemberForm extends Omit<MemberForm, "kind"> {
  readonly kind: MemberForm["kind"] | "whole" | "truth" | "anything";
}

/**
 * Returns how the members of a union without a tag are recognised in a language with a separate value for each: all of
 * them, in order.
 *
 * @param isOpen whether an enum may have values that the contract does not list
 */
export function tellAllApart(union: UnionShape, types: Types, isOpen: boolean): AnyMemberForm[] {
  const found = union.members.flatMap((member, at) =>
    allFormsOf(member.shape, at, { types, isOpen, passed: new Set() }),
  );
  return found.sort((a, b) => a.rank - b.rank).map(({ form }) => form);
}

interface Telling {
  readonly types: Types;
  readonly isOpen: boolean;
  /** The unions that were opened for this member: opening one again adds nothing. */
  readonly passed: Set<Shape>;
}

/** The most specific form comes first: listed values, then records by required fields, then types of values. */
function allFormsOf(
  shape: Shape,
  at: number,
  telling: Telling,
): { readonly form: AnyMemberForm; readonly rank: number }[] {
  const inner = resolveShape(shape, telling.types);
  const one = (kind: AnyMemberForm["kind"], rank: number): { form: AnyMemberForm; rank: number }[] => [
    { form: { at, kind, needs: [] }, rank },
  ];
  switch (inner.kind) {
    case "literal":
      return [{ form: { at, kind: "text", needs: [], values: [inner.value] }, rank: -2000 }];
    case "choice": {
      const values = inner.values.map(({ value }) => value);
      const listed = [{ form: { at, kind: "text" as const, needs: [], values }, rank: -2000 }];
      return telling.isOpen ? [...listed, ...one(typeof values[0] === "number" ? "number" : "text", 50)] : listed;
    }
    case "record":
      return recordForms(inner, at, telling.types).map((form) => ({
        form,
        rank: (form.constants ? -750 : -500) - form.needs.length,
      }));
    case "map":
      return one("record", -400);
    case "list":
    case "tuple":
      return one("list", 0);
    case "text":
      return one("text", inner.format === undefined ? 20 : 10);
    case "bytes":
      return one("text", 30);
    case "integer":
      return one("whole", 0);
    case "number":
      return one("number", 10);
    case "boolean":
      return one("truth", 0);
    case "any":
      return one("anything", 100);
    case "union":
      if (telling.passed.has(inner)) return [];
      telling.passed.add(inner);
      return inner.members.flatMap((member) => allFormsOf(member.shape, at, telling));
    case "named":
      return one("anything", 100);
  }
}
