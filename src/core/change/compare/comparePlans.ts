import { printCoordinate } from "../../use/coordinate.js";
import type { ContractNames } from "../../sdk/contractNames.js";
import type { GraphqlPlan } from "../../sdk/sdkPlan.js";
import type { Change } from "../change.js";
import { applyRules, type ChangeContext } from "../changeContext.js";
import type { PlannedSide } from "./compareGraphqlNames.js";
import { ShapeWalk, type NamedPairs, type ReferencePair } from "./compareReferences.js";
import { isToldToBreak, otherSpellings, spelledPlan } from "./compareSpellings.js";
import { deepSignature } from "./deepSignature.js";
import type { PointKind, Points } from "./points.js";
import type { SdkFacts } from "../sdkFacts.js";

/**
 * Returns every difference that source can see between two SDKs made from the same query documents, in the SDK's own
 * names. A schema can change around a selection without changing what is selected. The differences here are what the
 * compiler sees. A difference in a response has the place of its selection.
 */
export function comparePlans(before: PlannedSide, after: PlannedSide, facts: SdkFacts): Change[] {
  return new PlanComparison(before, after, facts).changes;
}

class PlanComparison {
  readonly changes: Change[] = [];
  private readonly left: GraphqlPlan;
  private readonly right: GraphqlPlan;
  private readonly names: ContractNames;
  /** Pairs of types with a name in the schema, each compared once for each direction. */
  private readonly named = new Map<string, { before: string; after: string; face: "ask" | "answer" }>();
  /** The source names of unions, by their members: a field that all members have is read from the union. */
  private readonly unions = new Map<string, string[]>();
  /** The operation or fragment that is being compared. */
  private owner: readonly string[] = [];

  constructor(
    private readonly before: PlannedSide,
    private readonly after: PlannedSide,
    private readonly facts: SdkFacts,
  ) {
    this.left = before.plan;
    this.right = after.plan;
    this.names = facts.names(this.left);
    for (const { id, shape } of this.left.types.values()) {
      if (shape.kind !== "union") continue;
      for (const { shape: member } of shape.members)
        if (member.kind === "named")
          this.unions.set(member.key, [...(this.unions.get(member.key) ?? []), this.nameOf(id)]);
    }
    this.compareCalls();
    this.compareFragments();
    this.compareNamed();
    if (facts.knowsTypesByName) this.compareSpellings();
  }

  private nameOf(id: string): string {
    return this.names.types.get(id) ?? this.facts.typeName(this.left.types.get(id)?.name ?? id);
  }

  private readonly onNamed: NamedPairs = (before, after, face) => {
    this.named.set(`${face} ${before} ${after}`, { before, after, face });
  };

  private walk(): ShapeWalk {
    const context: ChangeContext = {
      before: this.left.types,
      after: this.right.types,
      facts: this.facts,
      isGraphql: false,
      signatures: {
        before: (reference) => deepSignature(reference, this.left.types, isInline),
        after: (reference) => deepSignature(reference, this.right.types, isInline),
      },
      at: <K extends PointKind>(kind: K, point: Points[K]) => {
        applyRules(this.changes, kind, { point, facts: this.facts, operations: () => this.owner });
      },
    };
    return new ShapeWalk(
      context,
      this.onNamed,
      (key) => !isInline(key),
      (key) => [this.nameOf(key), ...(this.unions.get(key) ?? [])],
    );
  }

  private compareCalls(): void {
    const others = new Map(this.right.calls.map((call) => [call.name, call]));
    for (const call of this.left.calls) {
      const other = others.get(call.name);
      if (!other) continue;
      this.owner = [call.operation.name];
      const own = this.names.call(call);
      const walk = this.walk();
      const known = new Map(other.variables.map((variable) => [variable.name, variable]));
      for (const { name, type, place } of call.variables) {
        const now = known.get(name);
        const coordinates = [own.argumentCoordinate(name)];
        const point = { subject: `${call.name} $${name}`, coordinates, owner: coordinates, placeBefore: place };
        if (now) walk.compare({ ...point, face: "ask", before: type, after: now.type });
      }
      const point = {
        subject: call.name,
        coordinates: [printCoordinate(own.call)],
        owner: [printCoordinate(own.call)],
      };
      const placeBefore = call.operation.place;
      walk.compare({ ...point, placeBefore, face: "answer", before: call.answer, after: other.answer });
    }
  }

  private compareFragments(): void {
    const others = new Map(this.right.fragments.map((each) => [each.name, each]));
    for (const { name, fragment, reference } of this.left.fragments) {
      const other = others.get(name);
      if (!other) continue;
      this.owner = [fragment];
      const point = { subject: name, coordinates: [], owner: [] };
      this.walk().compare({ ...point, face: "answer", before: reference, after: other.reference });
    }
  }

  private compareSpellings(): void {
    const before = spelledPlan(this.left, this.names);
    const after = spelledPlan(this.right, this.facts.names(this.right));
    for (const { owner: _owner, operation: _operation, ...point } of otherSpellings(
      before,
      after,
      this.facts.memberName,
    ))
      if (!isToldToBreak(point, this.changes)) applyRules(this.changes, "spelling", { point, facts: this.facts });
  }

  /** The map grows during the loop: comparing one type finds the next. */
  private compareNamed(): void {
    this.owner = [];
    for (const { before: left, after: right, face } of this.named.values()) {
      const type = this.left.types.get(left);
      const other = this.right.types.get(right);
      if (!type || !other) continue;
      const name = this.nameOf(left);
      const pair: ReferencePair = {
        before: { shape: type.shape, nullable: false },
        after: { shape: other.shape, nullable: false },
        face,
        subject: this.before.contract.types.get(left)?.name ?? name,
        placeBefore: this.before.contract.types.get(left)?.place,
        placeAfter: this.after.contract.types.get(right)?.place,
        coordinates: [printCoordinate(name)],
        owner: [printCoordinate(name, "built")],
        isShared: type.face === "both",
      };
      this.walk().compareNamed(pair, type.shape, other.shape);
    }
  }
}

function isInline(key: string): boolean {
  return key.startsWith("inline ");
}
