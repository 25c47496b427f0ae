import type { AnyShape, Reference, Shape, UnionShape } from "../contract/model.js";
import type { PlannedType } from "../sdk/sdkPlan.js";

/** What decides whether a type includes null, besides the contract. */
export interface NullFacts {
  readonly types: ReadonlyMap<string, PlannedType>;
  /** Type names that have a type of their own. */
  readonly wrapped: ReadonlySet<string>;
  /** Returns whether a value without a type in the contract is a JSON value, which includes JSON's null. */
  readonly isJson: (shape: AnyShape) => boolean;
}

/** Finds whether null is a value of a use of a shape, for languages with nullable types. Each name is followed once. */
export class Nullness {
  private readonly targets = new Map<string, Shape>();
  private readonly unions = new Map<UnionShape, boolean>();

  constructor(private readonly facts: NullFacts) {}

  /** Returns whether null is a value of a use of a shape. A value of any type may include JSON's own null. */
  admits({ shape, nullable }: Reference): boolean {
    const inner = this.target(shape);
    if (inner.kind === "any") return nullable && !this.facts.isJson(inner);
    if (nullable || inner.kind !== "union") return nullable;
    const known = this.unions.get(inner) ?? this.isInUnion(inner);
    this.unions.set(inner, known);
    return known;
  }

  private isInUnion(union: UnionShape): boolean {
    const unions = new Set([union]);
    // A set that grows during the loop is read to its end.
    for (const { members } of unions)
      for (const member of members) {
        const target = this.target(member.shape);
        if (target.kind === "union" && !member.nullable) unions.add(target);
        else if (this.admits(member)) return true;
      }
    return false;
  }

  /** The definition of a name without a type of its own. */
  private target(shape: Shape): Shape {
    if (shape.kind !== "named") return shape;
    let found = this.targets.get(shape.key);
    if (found) return found;
    found = shape;
    // A name that leads back to itself has a type.
    while (found.kind === "named" && !this.facts.wrapped.has(found.key)) {
      const next = this.facts.types.get(found.key);
      if (!next) break;
      found = next.shape;
    }
    this.targets.set(shape.key, found);
    return found;
  }
}
