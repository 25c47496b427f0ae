import type { Field, RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { PlannedType } from "../../sdkPlan.js";
import { decodedLeaf } from "./decodedLeaf.js";
import { memberSample, noFields, sampleLeaf, saysTag, type Sample } from "./sample.js";
import type { SharedSettings } from "../sharedSettings.js";

/** How a sample of a record is built for tests: its required fields, with the fields of the test replaced. */
export interface SampleBuilder {
  readonly type: PlannedType;
  readonly filled: readonly { readonly field: Field; readonly of: Sample }[];
  /** Required fields that only the test can fill: types of the app's own, and circles. */
  readonly lacking: readonly Field[];
}

type MadeFields = Pick<SampleBuilder, "filled" | "lacking">;

type Types = ReadonlyMap<string, PlannedType>;

/** Returns a builder for every record of a plan, with the contract's examples if there are some. */
export function sampleBuilders(types: Types, settings: SharedSettings): SampleBuilder[] {
  return new Builders(types, settings).all();
}

const mostItems = 10;
/**
 * The largest number of values in one field. Lists, tuples and unions that contain others twice would double with each
 * step.
 */
const mostValues = 300;

class Builders {
  /** The required fields so far, by type; "open" while they are being built. */
  private readonly made = new Map<string, MadeFields | "open">();
  /** The number of values in the current field so far. */
  private count = 0;

  constructor(
    private readonly types: Types,
    private readonly settings: SharedSettings,
  ) {}

  all(): SampleBuilder[] {
    // Sorted by name, because a circle is broken where it is entered.
    return sortedBy(this.types.values(), ({ name }) => name).flatMap((type) => {
      const { shape } = type;
      if (shape.kind !== "record" || !this.hasBuilder(shape)) return [];
      return [{ type, ...this.fieldsOf(type.id) }];
    });
  }

  /** A sealed value cannot be built; its whole can. */
  private hasBuilder(shape: RecordShape): boolean {
    const isSealed = this.settings.fragments === "sealed" && (shape.seals ?? []).length > 0;
    return !shape.oneOf && shape.fields.length > 0 && !isSealed;
  }

  /** Built once: a later sample may need this one, and would otherwise be needed by it. */
  private fieldsOf(id: string): MadeFields {
    const known = this.made.get(id);
    if (known !== undefined && known !== "open") return known;
    const shape = this.types.get(id)?.shape;
    this.made.set(id, "open");
    const filled: SampleBuilder["filled"][number][] = [];
    const lacking: Field[] = [];
    for (const field of shape?.kind === "record" ? shape.fields : []) {
      if (!field.required) continue;
      const of = this.ofField(field);
      if (of) filled.push({ field, of });
      else lacking.push(field);
    }
    const made = { filled, lacking };
    this.made.set(id, made);
    return made;
  }

  private ofField(field: Field): Sample | undefined {
    const before = this.count;
    this.count = 0;
    const value = this.fromExample(field) ?? this.ofReference(field.type, []);
    this.count = before;
    // A deprecated value is a constant, and a list of constants is not a mutable list.
    const isConstantList = value?.kind === "list" && value.items.length > 0;
    return field.deprecated !== undefined && isConstantList ? undefined : value;
  }

  /** The contract's own example, if it is a plain value of the field's type. */
  private fromExample({ example, type }: Field): Sample | undefined {
    const shape = resolveShape(type.shape, this.types);
    if (decodedLeaf(shape, this.settings)) return undefined;
    if (shape.kind === "text" && typeof example === "string") return { kind: "value", value: example };
    const isNumber = (shape.kind === "integer" || shape.kind === "number") && typeof example === "number";
    if (isNumber || (shape.kind === "boolean" && typeof example === "boolean"))
      return { kind: "value", value: example };
    if (shape.kind !== "choice") return undefined;
    const listed = shape.values.find(({ value }) => value === example);
    return listed && { kind: "value", value: listed.value };
  }

  /** @param passed the types without a builder around the value: one that needs itself has no end */
  private ofReference(reference: Reference, passed: readonly string[]): Sample | undefined {
    return reference.nullable ? { kind: "null" } : this.ofShape(reference.shape, passed);
  }

  private ofShape(shape: Shape, passed: readonly string[]): Sample | undefined {
    if (++this.count > mostValues) return undefined;
    switch (shape.kind) {
      case "named": {
        const inner = this.types.get(shape.key)?.shape;
        if (!inner || passed.includes(shape.key)) return undefined;
        if (inner.kind !== "record") return this.ofShape(inner, [...passed, shape.key]);
        if (!this.hasBuilder(inner))
          return inner.oneOf || inner.fields.length > 0 || inner.seals ? undefined : noFields;
        // A circle of records that need each other has no end.
        if (this.made.get(shape.key) === "open" || this.fieldsOf(shape.key).lacking.length > 0) return undefined;
        return { kind: "built", id: shape.key };
      }
      case "list": {
        const count = shape.constraints?.minItems ?? 0;
        if (count === 0) return { kind: "list", items: [] };
        if (count > mostItems) return undefined;
        const before = this.count;
        const item = this.ofReference(shape.item, passed);
        // Every item is written out, with all its parts.
        this.count += (count - 1) * (this.count - before);
        return item === undefined || this.count > mostValues
          ? undefined
          : { kind: "list", items: Array.from({ length: count }, () => item) };
      }
      case "map":
        return noFields;
      case "tuple": {
        const needed = shape.items.slice(0, shape.needed ?? shape.items.length);
        const items = needed.map((item) => this.ofReference(item, passed));
        const made = items.filter((item) => item !== undefined);
        return made.length < items.length ? undefined : { kind: "list", items: made };
      }
      case "union": {
        for (const [at, member] of shape.members.entries()) {
          const value = this.ofShape(member.shape, passed);
          if (value === undefined) continue;
          return memberSample(this.tagged(value, shape, at), at);
        }
        return undefined;
      }
      case "record":
        return undefined;
      default:
        return sampleLeaf(shape, this.settings);
    }
  }

  /** A member of a union that is identified by a tag outside its record. */
  private tagged(of: Sample, { tag, members }: UnionShape, at: number): Sample {
    const value = tag?.values[at]?.[0];
    const member = members[at];
    if (!tag || value === undefined || !member || resolveShape(member.shape, this.types).kind !== "record") return of;
    return saysTag(member, tag.field, this.types) ? of : { kind: "tagged", of, field: tag.field, value };
  }
}
