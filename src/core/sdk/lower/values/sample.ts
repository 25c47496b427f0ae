import type { ChoiceValue, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { PlannedType } from "../../sdkPlan.js";
import { newerTag } from "../../typePlanner.js";
import { decodedLeaf, type DecodedLeaf, type DecodingSettings } from "./decodedLeaf.js";

/** A sample value of a shape, as in the app. */
export type Sample =
  | { readonly kind: "null" | "nothing" | "bytes" | "newer" }
  /** A string, a number or a boolean. */
  | { readonly kind: "value"; readonly value: ChoiceValue }
  | { readonly kind: "decoded"; readonly leaf: Exclude<DecodedLeaf, { readonly kind: "own" }> }
  /** A value of a GraphQL scalar, with its configured type, or any value. */
  | { readonly kind: "any"; readonly scalar?: string }
  | { readonly kind: "list"; readonly items: readonly Sample[] }
  | { readonly kind: "record"; readonly fields: readonly { readonly name: string; readonly of: Sample }[] }
  /** The result of a planned type's builder. */
  | { readonly kind: "built"; readonly id: string }
  /** A member of a union, by position. A sample of the first member may stand for itself. */
  | { readonly kind: "member"; readonly at: number; readonly of: Sample }
  /** A record without its own tag field. */
  | { readonly kind: "tagged"; readonly of: Sample; readonly field: string; readonly value: string };

const textByFormat: ReadonlyMap<string, string> = new Map([
  ["date", "2026-05-01"],
  ["date-time", "2026-05-01T08:30:00Z"],
  ["time", "08:30:00"],
  ["uuid", "0f4a7c1e-2b3d-4e5f-8a9b-0c1d2e3f4a5b"],
  ["email", "skipper@example.test"],
  ["uri", "https://example.test/"],
  ["id", "1"],
]);
const deepestSample = 5;
const mostValues = 60;

export const noFields: Sample = { kind: "record", fields: [] };

type Types = ReadonlyMap<string, PlannedType>;

/**
 * Returns a sample of a shape with only its required fields, for documentation.
 *
 * @returns undefined if the shape is too large for a sample, recursive without an end, or contains a value that only
 * the app can create
 */
export function sampleOf(reference: Reference, types: Types, settings: DecodingSettings): Sample | undefined {
  return new Sampling(types, settings).value(reference, 0);
}

/** One sample that is being built. */
class Sampling {
  /** The number of values so far. */
  private count = 0;
  /** The records around the current value. */
  private readonly open = new Set<Shape>();

  constructor(
    private readonly types: Types,
    private readonly settings: DecodingSettings,
  ) {}

  value(reference: Reference, depth: number): Sample | undefined {
    if (++this.count > mostValues) return undefined;
    const shape = resolveShape(reference.shape, this.types);
    if (depth > deepestSample) {
      if (reference.nullable) return { kind: "null" };
      if (shape.kind === "record" || shape.kind === "union") return undefined;
    }
    return this.ofShape(shape, depth);
  }

  private ofShape(shape: Shape, depth: number): Sample | undefined {
    switch (shape.kind) {
      case "list": {
        if (depth > deepestSample) return { kind: "list", items: [] };
        const item = this.value(shape.item, depth + 1);
        return item && { kind: "list", items: [item] };
      }
      case "map":
        return noFields;
      case "tuple": {
        const items = this.all(shape.items, depth);
        return items && { kind: "list", items };
      }
      case "union":
        return this.ofUnion(shape, depth);
      case "record": {
        const chosen = shape.oneOf ? shape.fields.slice(0, 1) : shape.fields.filter((field) => field.required);
        const isOuter = !this.open.has(shape);
        this.open.add(shape);
        const values = this.all(
          chosen.map((field) => field.type),
          depth,
        );
        if (isOuter) this.open.delete(shape);
        if (!values) return undefined;
        return {
          kind: "record",
          fields: chosen.flatMap(({ name }, at) => {
            const of = values[at];
            return of ? [{ name, of }] : [];
          }),
        };
      }
      default:
        return sampleLeaf(shape, this.settings);
    }
  }

  /** The values of several references; undefined as soon as one has none. */
  private all(references: readonly Reference[], depth: number): Sample[] | undefined {
    const values: Sample[] = [];
    for (const reference of references) {
      const value = this.value(reference, depth + 1);
      if (value === undefined) return undefined;
      values.push(value);
    }
    return values;
  }

  /** The first member with a value that is not around the current value. */
  private ofUnion(union: UnionShape, depth: number): Sample | undefined {
    if (union.members.length === 0) return { kind: "nothing" };
    for (const [at, member] of union.members.entries()) {
      if (this.open.has(resolveShape(member.shape, this.types))) continue;
      const sample = this.value(member, depth + 1);
      if (sample === undefined) continue;
      const of = this.withTag(sample, union, at);
      return memberSample(of, at);
    }
    return undefined;
  }

  private withTag(sample: Sample, { members, tag }: UnionShape, at: number): Sample {
    const member = members[at];
    const value = tag?.values[at]?.[0];
    if (!tag || !member || value === undefined || sample.kind !== "record") return sample;
    if (saysTag(member, tag.field, this.types)) return sample;
    const rest = sample.fields.filter(({ name }) => name !== tag.field);
    return { kind: "record", fields: [{ name: tag.field, of: { kind: "value", value } }, ...rest] };
  }
}

/**
 * Returns a sample of a union.
 *
 * @param of a sample of the member
 * @param at the position of the member
 */
export function memberSample(of: Sample, at: number): Sample {
  // A member of the first member has its own position, which is not the position in this union.
  return at === 0 && of.kind !== "member" ? of : { kind: "member", at, of };
}

/** Returns the union member that a sample has, with the sample of that member. */
export function memberOfSample(
  sample: Sample,
  { members }: UnionShape,
): { readonly member: Reference | undefined; readonly of: Sample } {
  const [at, made] = sample.kind === "member" ? [sample.at, sample.of] : [0, sample];
  return { member: members[at], of: made.kind === "tagged" ? made.of : made };
}

/** Returns whether a record contains the tag field itself. */
export function saysTag(member: Reference, tag: string, types: Types): boolean {
  const record = resolveShape(member.shape, types);
  const own = record.kind === "record" && record.fields.find((field) => field.name === tag && field.required);
  return own !== false && own !== undefined && ["literal", "choice"].includes(resolveShape(own.type.shape, types).kind);
}

/** Returns a value of a shape without parts; undefined if only the app can create one. */
export function sampleLeaf(shape: Shape, settings: DecodingSettings): Sample | undefined {
  const leaf = decodedLeaf(shape, settings);
  if (leaf) return leaf.kind === "own" ? undefined : { kind: "decoded", leaf };
  switch (shape.kind) {
    case "text":
      if (shape.format === newerTag) return { kind: "newer" };
      return { kind: "value", value: textByFormat.get(shape.format ?? "") ?? "text" };
    case "integer":
    case "number":
      return { kind: "value", value: shape.constraints?.minimum ?? 1 };
    case "boolean":
      return { kind: "value", value: true };
    case "literal":
      return { kind: "value", value: shape.value };
    case "choice":
      return { kind: "value", value: shape.values[0]?.value ?? "" };
    case "bytes":
      return { kind: "bytes" };
    case "any":
      return { kind: "any", ...(shape.scalar === undefined ? {} : { scalar: shape.scalar }) };
    default:
      return undefined;
  }
}
