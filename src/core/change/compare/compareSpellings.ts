import { memberOf, printCoordinate } from "../../use/coordinate.js";
import { operationLabel, type Field, type Reference, type Shape } from "../../contract/model.js";
import type { ContractNames } from "../../sdk/contractNames.js";
import { directions } from "../../sdk/lower/values/directions.js";
import type { ContractPlan, PlannedType, RestPlan } from "../../sdk/sdkPlan.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { Change } from "../change.js";
import type { Point } from "./points.js";

/** A member, an argument or a response with another type name in the SDK, and both names. */
export interface OtherSpelling extends Point {
  readonly face: "ask" | "answer";
  readonly before: string;
  readonly after: string;
  /** Whether source now marks if it is sent, or no longer does. */
  readonly isMarked?: boolean;
  /** Whether it was a union: the value sent is a member of it, which may have kept its name. */
  readonly isUnion?: boolean;
  /** The id of the type with the member. */
  readonly owner?: string;
  /** The operation of the argument or response. */
  readonly operation?: string;
}

/** A plan, and the SDK's names for its parts. */
export interface SpelledPlan<Plan extends ContractPlan = ContractPlan> {
  readonly plan: Plan;
  readonly names: Pick<ContractNames, "types" | "call" | "argument">;
  /** The ids of the types that the app sends. */
  readonly written: ReadonlySet<string>;
}

/** Returns a plan with the facts for comparing spellings. */
export function spelledPlan<Plan extends ContractPlan>(
  plan: Plan,
  names: Pick<ContractNames, "types" | "call" | "argument">,
): SpelledPlan<Plan> {
  const written = [...directions(plan)].flatMap(([id, { isWritten }]) => (isWritten ? [id] : []));
  return { plan, names, written: new Set(written) };
}

/** Returns whether a change already reports that source with a value of another type does not compile. */
export function isToldToBreak({ face, coordinates }: OtherSpelling, changes: readonly Change[]): boolean {
  return changes.some(
    (change) =>
      change.face === face &&
      change.verdict.code === "breaking" &&
      change.coordinates.some((each) => coordinates.includes(each)),
  );
}

/**
 * Returns members of records whose type has another name, although the old type still exists. In languages that
 * distinguish types by name, source with the old name then does not compile.
 *
 * @param memberName returns the source name of a field
 */
export function otherSpellings(
  before: SpelledPlan,
  after: SpelledPlan,
  memberName: (field: string) => string,
): OtherSpelling[] {
  const still = new Set(after.names.types.values());
  const inRecords = [...before.plan.types.values()].flatMap((type) => {
    const other = after.plan.types.get(type.id);
    if (type.shape.kind !== "record" || other?.shape.kind !== "record") return [];
    // A type with a completely different form is a change of its own.
    if (type.shape.oneOf !== other.shape.oneOf) return [];
    const fields = new Map(other.shape.fields.map((field) => [field.name, field]));
    const name = before.names.types.get(type.id) ?? type.name;
    return type.shape.fields.flatMap((field): OtherSpelling[] => {
      const now = fields.get(field.name);
      if (!now) return [];
      const [was, is] = [classOf(field.type, before), classOf(now.type, after)];
      const isOther = was !== undefined && is !== undefined && was !== is && still.has(was);
      const isWrapped = [isMarked(field, type, before), isMarked(now, other, after)] as const;
      if (!isOther && isWrapped[0] === isWrapped[1]) return [];
      const point = {
        subject: `${type.name}.${field.name}`,
        coordinates: [memberOf(name, memberName(field.name))],
        placeBefore: field.place,
        placeAfter: now.place,
        before: shown(was, isWrapped[0]),
        after: shown(is, isWrapped[1]),
        isMarked: isWrapped[0] !== isWrapped[1],
        isUnion: isUnion(field.type, before.plan),
        owner: type.id,
      };
      const faces =
        type.face === "both" ? (["ask", "answer"] as const) : [type.face === "request" ? ("ask" as const) : type.face];
      return faces.map((face) => ({ ...point, face }));
    });
  });
  return [...inRecords, ...(isRest(before) && isRest(after) ? spelledCalls(before, after, still) : [])];
}

/** Variables and responses of queries have the types of the query. */
function isRest(spelled: SpelledPlan): spelled is SpelledPlan<RestPlan> {
  return spelled.plan.protocol === "rest";
}

/** Arguments and responses of calls whose type has another name. */
function spelledCalls(
  before: SpelledPlan<RestPlan>,
  after: SpelledPlan<RestPlan>,
  still: ReadonlySet<string>,
): OtherSpelling[] {
  const right = new Map(after.plan.calls.map((call) => [operationLabel(call.operation), call]));
  return before.plan.calls.flatMap((call) => {
    const label = operationLabel(call.operation);
    const other = right.get(label);
    if (!other) return [];
    const own = before.names.call(call);
    const found: OtherSpelling[] = [];
    const add = (
      [was, is]: readonly (string | undefined)[],
      point: Pick<OtherSpelling, "face" | "subject" | "coordinates" | "isUnion">,
    ): void => {
      if (was !== undefined && is !== undefined && was !== is && still.has(was))
        found.push({ ...point, before: was, after: is, operation: label });
    };
    for (const argument of call.arguments) {
      const now = other.arguments.find(({ name }) => name === argument.name);
      const name = before.names.argument(argument);
      add([classOf(argument.type, before), now && classOf(now.type, after)], {
        face: "ask",
        subject: `${label} ${name}`,
        coordinates: [own.argumentCoordinate(name)],
        isUnion: isUnion(argument.type, before.plan),
      });
    }
    const [answer] = call.answers;
    const [now] = other.answers;
    add([answer?.type && classOf(answer.type, before), now?.type && classOf(now.type, after)], {
      face: "answer",
      subject: label,
      coordinates: [own.call, ...own.allPages].map((name) => printCoordinate(name)),
    });
    return found;
  });
}

/** Whether source marks if a field is sent: a field in requests that may be both absent and null. */
function isMarked(
  { required, type: { shape, nullable } }: Field,
  { id, shape: record }: PlannedType,
  { plan, written }: SpelledPlan,
): boolean {
  // The given field is never null.
  if (record.kind === "record" && record.oneOf) return false;
  const admitsNull = nullable || (resolveShape(shape, plan.types).kind === "union" && hasNull(shape, plan));
  return !required && admitsNull && written.has(id);
}

/** Whether a value, or an item of it, is a union. */
function isUnion({ shape }: Reference, plan: ContractPlan): boolean {
  const inner = resolveShape(shape, plan.types);
  return inner.kind === "list" ? isUnion(inner.item, plan) : inner.kind === "union";
}

function hasNull(shape: Shape, { types }: ContractPlan): boolean {
  const inner = resolveShape(shape, types);
  return inner.kind === "union" && inner.members.some(({ nullable }) => nullable);
}

function shown(name: string | undefined, isMarked: boolean): string {
  return `${name ?? "value"}${isMarked ? " that may be left out" : ""}`;
}

/** The class of a value or its items; undefined if it has none. */
function classOf({ shape }: Reference, { plan, names, written }: SpelledPlan): string | undefined {
  switch (shape.kind) {
    case "list":
      return classOf(shape.item, { plan, names, written });
    case "map":
      return classOf(shape.value, { plan, names, written });
    case "named": {
      const type = plan.types.get(shape.key);
      if (!type) return undefined;
      return isClass(type)
        ? names.types.get(shape.key)
        : classOf({ shape: type.shape, nullable: false }, { plan, names, written });
    }
    default:
      return undefined;
  }
}

function isClass({ shape: { kind } }: PlannedType): boolean {
  return kind === "record" || kind === "choice" || kind === "union";
}
