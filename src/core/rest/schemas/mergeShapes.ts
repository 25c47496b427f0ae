import type { Field, RecordShape, Reference, Shape, UnionShape } from "../../contract/model.js";
import { sameReference } from "../../contract/sameShape.js";

export interface MergeContext {
  /** Looks behind a named shape. */
  readonly resolve: (reference: Reference) => Reference;
  /** Told of two parts that cannot both hold; `where` is a field path such as "size.length". */
  readonly conflict: (where: string) => void;
  /** The definition of two named types merged, where one may stand: merges of recursive types then come to an end. */
  readonly together: (a: string, b: string) => Reference | undefined;
  /** Does one merge inside the others; gives the first part when there are too many. */
  readonly within: (merge: () => Reference, first: Reference) => Reference;
}

const maxMergedMembers = 400;

/**
 * What holds for a value that satisfies both references (JSON Schema `allOf`): records merge field by field, unions
 * distribute, of two that disagree the narrower wins; where neither is narrower the first wins and is reported.
 */
export function mergeReferences(
  a: Reference,
  b: Reference,
  { context, where = "" }: { readonly context: MergeContext; readonly where?: string | undefined },
): Reference {
  if (sameReference(a, b)) return a;
  // Asked before looking behind names, because a name may still be in the middle of being read.
  if (b.shape.kind === "any") return a;
  if (a.shape.kind === "any") return b;
  if (a.shape.kind === "named" && b.shape.kind === "named") {
    const together = context.together(a.shape.key, b.shape.key);
    if (together) return together;
  }
  return context.within(() => {
    const left = context.resolve(a);
    const right = context.resolve(b);
    const nullable = left.nullable && right.nullable;
    // A part that says nothing about the value leaves the other one, and its name, as it is.
    if (right.shape.kind === "any") return { shape: a.shape, nullable: left.nullable };
    if (left.shape.kind === "any") return { shape: b.shape, nullable: right.nullable };
    return { shape: mergeShapes(left.shape, right.shape, { context, where }), nullable };
  }, a);
}

function mergeShapes(
  a: Shape,
  b: Shape,
  { context, where }: { readonly context: MergeContext; readonly where: string },
): Shape {
  if (a.kind === "record" && b.kind === "record") return mergeRecords(a, b, { context, where });
  if (a.kind === "record" && b.kind === "map") return { ...a, rest: a.rest ?? b.value };
  if (a.kind === "map" && b.kind === "record") return { ...b, rest: b.rest ?? a.value };
  if (a.kind === "union")
    return distribute(
      a,
      (member, inner) => mergeReferences(member, { shape: b, nullable: false }, { context: inner, where }),
      { context, where },
    );
  if (b.kind === "union")
    return distribute(
      b,
      (member, inner) => mergeReferences({ shape: a, nullable: false }, member, { context: inner, where }),
      { context, where },
    );
  if (a.kind === "list" && b.kind === "list") {
    return {
      kind: "list",
      item: mergeReferences(a.item, b.item, { context, where: `${where}[]` }),
      ...constraintsOf(a, b),
    };
  }
  if (a.kind === "map" && b.kind === "map")
    return { kind: "map", value: mergeReferences(a.value, b.value, { context, where }) };
  if (a.kind === b.kind && (a.kind === "text" || a.kind === "integer" || a.kind === "number")) {
    const other = b as typeof a;
    const format = a.format ?? other.format;
    return { kind: a.kind, ...(format === undefined ? {} : { format }), ...constraintsOf(a, other) };
  }
  return narrower(a, b) ?? narrower(b, a) ?? conflicting(a, context, where);
}

function conflicting(kept: Shape, context: MergeContext, where: string): Shape {
  context.conflict(where);
  return kept;
}

function constraintsOf(
  a: Shape & { constraints?: object },
  b: Shape & { constraints?: object },
): { constraints?: object } {
  return a.constraints || b.constraints ? { constraints: { ...a.constraints, ...b.constraints } } : {};
}

/** The first shape, when it is a narrower version of the second. */
function narrower(a: Shape, b: Shape): Shape | undefined {
  const values =
    a.kind === "literal" ? [a.value] : a.kind === "choice" ? a.values.map((each) => each.value) : undefined;
  if (values) {
    if (b.kind === "choice") {
      const allowed = new Set(b.values.map((each) => each.value));
      return values.every((value) => allowed.has(value)) ? a : undefined;
    }
    const fits = (value: unknown): boolean =>
      (b.kind === "text" && typeof value === "string") ||
      (b.kind === "boolean" && typeof value === "boolean") ||
      ((b.kind === "number" || b.kind === "integer") && typeof value === "number");
    return values.every(fits) ? a : undefined;
  }
  if (a.kind === "integer" && b.kind === "number") return a;
  if (a.kind === "tuple" && b.kind === "list") return a;
  return undefined;
}

function mergeRecords(
  a: RecordShape,
  b: RecordShape,
  { context, where }: { readonly context: MergeContext; readonly where: string },
): RecordShape {
  const fields = new Map(a.fields.map((field) => [field.name, field]));
  for (const field of b.fields) {
    const known = fields.get(field.name);
    fields.set(field.name, known ? mergeFields(known, field, { context, where }) : field);
  }
  const rest =
    a.rest && b.rest ? mergeReferences(a.rest, b.rest, { context, where: `${where}[*]` }) : (a.rest ?? b.rest);
  return {
    kind: "record",
    fields: [...fields.values()],
    ...(rest ? { rest } : {}),
    ...(a.closed && b.closed ? { closed: true } : {}),
  };
}

function mergeFields(
  a: Field,
  b: Field,
  { context, where }: { readonly context: MergeContext; readonly where: string },
): Field {
  const description = a.description ?? b.description;
  const deprecated = a.deprecated ?? b.deprecated;
  const face = a.face ?? b.face;
  return {
    ...a,
    type: mergeReferences(a.type, b.type, { context, where: where === "" ? a.name : `${where}.${a.name}` }),
    required: a.required || b.required,
    ...(description === undefined ? {} : { description }),
    ...(deprecated === undefined ? {} : { deprecated }),
    ...(face === undefined ? {} : { face }),
  };
}

function distribute(
  union: UnionShape,
  merge: (member: Reference, context: MergeContext) => Reference,
  { context, where }: { readonly context: MergeContext; readonly where: string },
): Shape {
  if (union.members.length > maxMergedMembers) return union;
  // A member that contradicts the other part is no longer possible; only when all contradict is it a conflict.
  const kept: { member: Reference; at: number }[] = [];
  union.members.forEach((member, at) => {
    const contradictions: string[] = [];
    const merged = merge(member, { ...context, conflict: (part) => contradictions.push(part) });
    if (contradictions.length === 0) kept.push({ member: merged, at });
  });
  if (kept.length === 0) return conflicting(union, context, where);
  const [only] = kept;
  if (kept.length === 1 && only) return only.member.shape;
  const tag = union.tag && { field: union.tag.field, values: kept.map(({ at }) => union.tag?.values[at] ?? []) };
  return { kind: "union", members: kept.map(({ member }) => member), ...(tag ? { tag } : {}) };
}
