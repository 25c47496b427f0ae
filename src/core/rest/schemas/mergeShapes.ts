import type { Field, RecordShape, Reference, Shape, UnionShape } from "../../contract/model.js";
import { sameReference } from "../../contract/sameShape.js";

export interface MergeContext {
  /** Follows a named shape. */
  readonly resolve: (reference: Reference) => Reference;
  /** Called for two parts that contradict each other; `where` is a field path such as "size.length". */
  readonly conflict: (where: string) => void;
  /** Returns the definition of two merged named types, if one is allowed here. Merges of recursive types then end. */
  readonly together: (a: string, b: string) => Reference | undefined;
  /** Runs a merge inside the others. Returns the first part if there are too many. */
  readonly within: (merge: () => Reference, first: Reference) => Reference;
}

const maxMergedMembers = 400;

/**
 * Merges two references into the type of values that satisfy both (JSON Schema `allOf`). Records merge field by field,
 * and unions distribute. Of two different types the narrower one wins. If neither is narrower, the first wins and the
 * conflict is reported.
 *
 * @param where the path of the field, for conflicts
 */
export function mergeReferences(
  a: Reference,
  b: Reference,
  { context, where = "" }: { readonly context: MergeContext; readonly where?: string | undefined },
): Reference {
  if (sameReference(a, b)) return a;
  // This comes before names are followed, because a name may still be in the middle of being read.
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
    // A part without a type leaves the other part, with its name, as it is.
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

/** Returns the first shape if it is narrower than the second. */
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
  // A member that contradicts the other part is impossible. Only if all members contradict, it is a conflict.
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
