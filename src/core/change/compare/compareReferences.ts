import { membersOfBuilt, positionsOfBuilt, printCoordinate, type Coordinate } from "../../use/coordinate.js";
import type { ChoiceValue, Field, RecordShape, Reference, Shape, UnionShape } from "../../contract/model.js";
import { resolveReference, type ShapeTable } from "../../contract/resolveShape.js";
import { referenceSignature, sameReference } from "../../contract/sameShape.js";
import type { ChangeContext } from "../changeContext.js";
import type { Point } from "./points.js";
import { renamedTo } from "./renamedTo.js";
import { sameMeaning } from "./sameMeaning.js";
import { shapeFamily } from "./shapeFamily.js";
import { shapeWords } from "../../contract/shapeWords.js";
import { sortedBy } from "../../text/sortedBy.js";

/** Two uses of a shape that correspond to each other. */
export interface ReferencePair extends Point {
  readonly before: Reference;
  readonly after: Reference;
  readonly face: "ask" | "answer";
  /** The coordinates of code that builds the whole value. */
  readonly owner: readonly Coordinate[];
  /** Whether the value is written as text, whatever it is: a parameter. */
  readonly isWritten?: boolean | undefined;
  /** Whether the value is in a type for both directions. */
  readonly isShared?: boolean | undefined;
  /** Whether the value belongs to a field that could be absent before. */
  readonly mayBeAbsent?: boolean | undefined;
  /** How a single value counts as a list: "whole", or "split" if it is split at a separator. */
  readonly asListOfOne?: "whole" | "split" | undefined;
}

/** Records a pair of named types, to be compared once for each direction. */
export type NamedPairs = (before: string, after: string, face: "ask" | "answer") => void;

/**
 * Visits every point inside two uses of a shape.
 *
 * Null and type come first: if the types differ, nothing inside can be compared. Two uses of named types go to `named`,
 * which sees each pair once. A shape that was moved to a definition, or inlined, is therefore no change, and recursion
 * ends.
 *
 * @param isNamed whether a name is the contract's own; other names are replaced by their definition
 */
export class ShapeWalk {
  constructor(
    private readonly context: ChangeContext,
    private readonly named: NamedPairs,
    private readonly isNamed: (key: string) => boolean = () => true,
    /**
     * Returns the source names of a type, by its key: the SDK's name, and the names of others that have its fields too.
     */
    private readonly sdkNames: (key: string) => readonly string[] = () => [],
  ) {}

  compare(pair: ReferencePair): void {
    const { before, after, face } = pair;
    if (this.isSame(before, after, face)) return;
    if (this.holdsOwnName(before.shape) && this.holdsOwnName(after.shape)) {
      this.atValue(pair, { ...before, shape: noShape }, { ...after, shape: noShape });
      this.named(before.shape.key, after.shape.key, face);
      return;
    }
    if (before === after) return;
    const left = resolveReference(before, this.context.before);
    const right = resolveReference(after, this.context.after);
    const inner = this.throughName(pair);
    if (!this.holdsNames(left.shape) && sameReference(left, right)) return;
    const isListOfIt = this.isListOf(right.shape, before);
    this.inside(isListOfIt ? inner : { ...inner, asListOfOne: undefined }, left, right);
  }

  /** Whether a shape is a list with exactly one type of items. */
  private isListOf(list: Shape, value: Reference): boolean {
    if (list.kind !== "list" || (list.constraints?.minItems ?? 0) > 1) return false;
    const { before, after } = this.context;
    const same = (one: Reference, item: Reference): boolean =>
      sameMeaning(
        { ...one, nullable: false },
        { ...item, nullable: false },
        {
          before,
          after,
          isOwnName: this.isNamed,
          named: () => undefined,
        },
      );
    return same(value, list.item) || same(resolveReference(value, before), resolveReference(list.item, after));
  }

  /** Compares the definitions of two names. Null belongs to the uses, which were already compared. */
  compareNamed(pair: ReferencePair, before: Shape, after: Shape): void {
    if (this.isSame({ shape: before, nullable: false }, { shape: after, nullable: false }, pair.face)) return;
    this.inside(pair, { shape: before, nullable: false }, { shape: after, nullable: false });
  }

  /** Whether there is no difference. The names inside are compared separately. */
  private isSame(before: Reference, after: Reference, face: "ask" | "answer"): boolean {
    const names: string[] = [];
    const isSame = sameMeaning(before, after, {
      before: this.context.before,
      after: this.context.after,
      isOwnName: this.isNamed,
      named: (key) => names.push(key),
    });
    if (isSame) for (const name of names) this.named(name, name, face);
    return isSame;
  }

  private holdsOwnName(shape: Shape): shape is Shape & { kind: "named" } {
    return shape.kind === "named" && this.isNamed(shape.key);
  }

  /** A part behind a name of the SDK also has that name. */
  private throughName(pair: ReferencePair): ReferencePair {
    const { shape } = pair.before;
    const names = shape.kind === "named" ? this.sdkNames(shape.key) : [];
    if (names.length === 0) return pair;
    return {
      ...pair,
      owner: names.map((name) => printCoordinate(name, "built")),
      coordinates: [...pair.coordinates, ...names.map((name) => printCoordinate(name))],
    };
  }

  /** Named shapes inside are compared by key, and the types of equal keys may differ. */
  private holdsNames(shape: Shape): boolean {
    return !["text", "integer", "number", "boolean", "literal", "choice", "bytes", "any"].includes(shape.kind);
  }

  private atValue(pair: ReferencePair, before: Reference, after: Reference): void {
    this.context.at("value", { ...pair, before, after, isGraphql: this.context.isGraphql });
  }

  private inside(pair: ReferencePair, before: Reference, after: Reference): void {
    const left = before.shape;
    const right = after.shape;
    if ((left.kind === "union") !== (right.kind === "union") && !isUnsaid(left) && !isUnsaid(right)) {
      this.atValue(pair, { ...before, shape: noShape }, { ...after, shape: noShape });
      this.members(pair, asUnion(before), asUnion(after), true);
      return;
    }
    this.atValue(pair, before, after);
    if (shapeFamily(left) !== shapeFamily(right)) return;
    const inner = (one: Reference, other: Reference, subject: string): void => {
      this.compare({ ...pair, before: one, after: other, subject, mayBeAbsent: undefined, asListOfOne: undefined });
    };
    if (left.kind === "list" && right.kind === "list") inner(left.item, right.item, `${pair.subject}[]`);
    else if (left.kind === "tuple" && right.kind === "tuple") {
      left.items.forEach((item, at) => {
        const other = right.items[at];
        if (other) inner(item, other, `${pair.subject}[${String(at)}]`);
      });
      if (left.rest && right.rest) inner(left.rest, right.rest, `${pair.subject}[…]`);
    } else if (left.kind === "union" && right.kind === "union") this.members(pair, left, right, false);
    else if (isRecord(left) && isRecord(right)) this.fields(pair, asRecord(left), asRecord(right));
    else this.choices(pair, left, right);
  }

  private choices(pair: ReferencePair, left: Shape, right: Shape): void {
    const before = valuesOf(left);
    const after = valuesOf(right);
    if (!before || !after) return;
    for (const value of before.filter((each) => !after.includes(each)))
      this.context.at("choice", { ...pair, before: value, after: undefined });
    for (const value of after.filter((each) => !before.includes(each)))
      this.context.at("choice", { ...pair, after: value, before: undefined });
  }

  private members(pair: ReferencePair, before: UnionShape, after: UnionShape, alone: boolean): void {
    const left = this.keyed(before, this.context.before);
    const right = this.keyed(after, this.context.after);
    const { isGraphql } = this.context;
    const point = { ...pair, alone: alone && before.members.length === 1, isOtherForm: alone, isGraphql };
    if (this.valuesTakenIn(pair, left, right, alone)) return;
    const partners = this.pairedMembers(left, right);
    for (const [key, member] of left)
      if (!partners.has(key))
        this.context.at("member", {
          ...point,
          before: this.words(key, member, this.context.before),
          after: undefined,
          key,
          isRecord: isRecord(resolveReference(member, this.context.before).shape),
        });
    const common = commonFields(before, this.context.before);
    const taken = new Set(partners.values());
    for (const [key, member] of right) {
      if (taken.has(key)) continue;
      const fields = requiredFields(member, this.context.after);
      const lacksCommon = fields && [...common].some((name) => !fields.has(name));
      this.context.at("member", {
        ...point,
        after: this.words(key, member, this.context.after),
        before: undefined,
        lacksCommon,
        joins: member.shape.kind === "named" ? this.context.joins?.(member.shape.key) : undefined,
      });
    }
    for (const [key, partner] of partners) {
      const member = left.get(key);
      const other = right.get(partner);
      if (!member || !other) continue;
      const subject = alone
        ? pair.subject
        : `${pair.subject} as ${this.words(key, member, this.context.before).replaceAll("`", "")}`;
      this.compare({ ...pair, before: member, after: other, subject, mayBeAbsent: undefined });
    }
  }

  /**
   * Members correspond by key. Of the others, records with mostly the same fields correspond, and shapes of the same
   * kind.
   */
  private pairedMembers(
    left: ReadonlyMap<string, Reference>,
    right: ReadonlyMap<string, Reference>,
  ): Map<string, string> {
    const pairs = new Map([...left.keys()].filter((key) => right.has(key)).map((key) => [key, key]));
    const open = new Set([...right.keys()].filter((key) => !pairs.has(key)));
    // The only remaining record on both sides is the same one, whatever changed in it.
    const isLast = open.size === 1 && left.size - pairs.size === 1;
    for (const [key, member] of left) {
      if (pairs.has(key)) continue;
      const before = resolveReference(member, this.context.before).shape;
      const partner = [...open].find((other) => {
        const reference = right.get(other);
        if (reference === undefined || !this.mayCorrespond(member.shape, reference.shape)) return false;
        const after = resolveReference(reference, this.context.after).shape;
        return isAlike(before, after) || (isLast && isRecord(before) && isRecord(after));
      });
      if (partner === undefined) continue;
      open.delete(partner);
      pairs.set(key, partner);
    }
    return pairs;
  }

  /** Two names correspond only if one was replaced by the other. */
  private mayCorrespond(before: Shape, after: Shape): boolean {
    if (!this.holdsOwnName(before) || !this.holdsOwnName(after)) return true;
    return !this.context.after.get(before.key) && !this.context.before.get(after.key);
  }

  /** Literals of a union are values of an enum, however the contract groups them. */
  private valuesTakenIn(
    pair: ReferencePair,
    left: ReadonlyMap<string, Reference>,
    right: ReadonlyMap<string, Reference>,
    alone: boolean,
  ): boolean {
    const all = (members: ReadonlyMap<string, Reference>, table: ShapeTable) =>
      [...members.values()].flatMap((member): (ChoiceValue | undefined)[] => [
        ...(valuesOf(resolveReference(member, table).shape) ?? [undefined]),
      ]);
    const before = all(left, this.context.before);
    const after = all(right, this.context.after);
    if (!alone || before.includes(undefined) || after.includes(undefined)) return false;
    for (const value of before)
      if (!after.includes(value)) this.context.at("choice", { ...pair, before: value, after: undefined });
    for (const value of after)
      if (!before.includes(value)) this.context.at("choice", { ...pair, after: value, before: undefined });
    return true;
  }

  /** By tag if there is one, otherwise by name, otherwise by definition. */
  private keyed(union: UnionShape, table: ShapeTable): Map<string, Reference> {
    const found = new Map<string, Reference>();
    union.members.forEach((member, at) => {
      const [value] = union.tag?.values[at] ?? [];
      const { shape } = member;
      const key =
        value ?? (this.holdsOwnName(shape) ? shape.key : memberSignature(resolveReference(member, table), table));
      if (!found.has(key)) found.set(key, member);
    });
    return found;
  }

  private words(key: string, member: Reference, table: ShapeTable): string {
    if (this.holdsOwnName(member.shape)) return `\`${key}\``;
    const { shape } = resolveReference(member, table);
    return member.shape.kind === "named" && shape.kind === "record" && !key.startsWith("{")
      ? `\`${key}\``
      : shapeWords(shape);
  }

  private fields(pair: ReferencePair, before: RecordShape, after: RecordShape): void {
    const { isGraphql } = this.context;
    this.context.at("record", { ...pair, before, after, isGraphql });
    if (this.context.facts.takesRecordsApart && pair.face === "answer") this.places(pair, before, after);
    comparedFields(pair, before, { after, context: this.context }).forEach(({ left, right, point, mayBeAbsent }) => {
      const { face, owner, isWritten, isShared } = pair;
      this.compare({ ...point, face, before: left, after: right, owner, isWritten, isShared, mayBeAbsent });
    });
    if (before.rest && after.rest)
      this.compare({
        ...pair,
        before: before.rest,
        after: after.rest,
        subject: `${pair.subject}[key]`,
        mayBeAbsent: undefined,
      });
  }

  /** Visits each position of a field that has another field now. */
  private places(pair: ReferencePair, before: RecordShape, after: RecordShape): void {
    const inOrder = ({ fields }: RecordShape): Field[] =>
      sortedBy(
        fields.filter(({ face }) => face !== "request"),
        ({ name }) => this.context.facts.memberName(name),
      );
    const right = inOrder(after);
    const type = ({ type: reference, required }: Field): string =>
      referenceSignature({ ...reference, nullable: reference.nullable || !required });
    inOrder(before).forEach((field, at) => {
      const other = right[at];
      if (other?.name === field.name) return;
      this.context.at("place", {
        ...pair,
        record: pair.subject,
        at: at + 1,
        subject: `${pair.subject}(${String(at + 1)})`,
        coordinates: positionsOfBuilt(pair.owner, at + 1),
        before: field.name,
        after: other?.name,
        isSameType: other !== undefined && type(field) === type(other),
      });
    });
  }
}

/** A field of both records. */
export interface ComparedField {
  readonly left: Reference;
  readonly right: Reference;
  readonly point: Point;
  readonly names: readonly [string, string];
  /** Whether it could be absent before. */
  readonly mayBeAbsent: boolean;
}

/**
 * Visits every field of two records.
 *
 * @returns the fields that exist on both sides, which are then compared inside
 */
export function comparedFields(
  pair: Omit<ReferencePair, "before" | "after">,
  before: RecordShape,
  {
    after,
    context,
    coordinatesOf = (field) => membersOfBuilt(pair.owner, context.facts.memberName(field)),
  }: {
    readonly after: RecordShape;
    readonly context: ChangeContext;
    readonly coordinatesOf?: ((field: string) => Coordinate[]) | undefined;
  },
): ComparedField[] {
  const against = pair.face === "ask" ? "answer" : "request";
  const left = before.fields.filter((field) => field.face !== against);
  const right = after.fields.filter((field) => field.face !== against);
  const newNames = new Map(right.map((field) => [field.name, field]));
  const oldNames = new Set(left.map((field) => field.name));
  const gone = left.filter((field) => !newNames.has(field.name));
  const fresh = right.filter((field) => !oldNames.has(field.name));
  const records = { before, after };
  const pointOf = (name: string): Point => ({
    face: pair.face,
    subject: `${pair.subject}.${name}`,
    coordinates: coordinatesOf(name),
    word: name,
  });
  const shared = { records, owner: pair.owner, isGraphql: context.isGraphql };
  const renamed = new Set<string>();
  for (const field of gone) {
    const successor = renamedTo(field, { gone, fresh, owner: pair.subject }, context.signatures);
    if (successor) renamed.add(successor.name);
    context.at("field", {
      ...pointOf(field.name),
      ...shared,
      before: field,
      successor,
      isTakenByRest: after.rest && isTakenBy(field, after.rest, { face: pair.face, context }),
      placeBefore: field.place,
      placeAfter: successor?.place,
    });
  }
  for (const field of fresh) {
    const isTakenByRest = before.rest && isTakenBy(field, before.rest, { face: pair.face, context });
    if (renamed.has(field.name) && isTakenByRest !== false) continue;
    context.at("field", { ...pointOf(field.name), ...shared, after: field, placeAfter: field.place, isTakenByRest });
  }
  return left.flatMap((field) => {
    const other = newNames.get(field.name);
    if (!other) return [];
    const point = { ...pointOf(field.name), placeBefore: field.place, placeAfter: other.place };
    context.at("field", { ...point, ...shared, before: field, after: other });
    const names = [field.name, other.name] as const;
    return [{ left: field.type, right: other.type, point, names, mayBeAbsent: !field.required }];
  });
}

/**
 * Whether an undeclared field on one side is covered by the rule for undeclared fields. In responses, the new value
 * must match the old rule; in requests, the old value must match the new rule.
 */
function isTakenBy(
  { type }: Field,
  rest: Reference,
  { face, context }: { readonly face: ReferencePair["face"]; readonly context: ChangeContext },
): boolean {
  const isAnswer = face === "answer";
  const expected = resolveReference(rest, isAnswer ? context.before : context.after);
  const given = resolveReference(type, isAnswer ? context.after : context.before);
  if (expected.shape.kind === "any") return true;
  if (given.nullable && !expected.nullable) return false;
  const kinds = (shape: Shape): string =>
    shape.kind === "integer"
      ? "number"
      : shape.kind === "choice" && expected.shape.kind === "text"
        ? "text"
        : (shapeFamily(shape).split(" ")[0] ?? "");
  return kinds(given.shape) === kinds(expected.shape);
}

/** Stands for a shape that is compared elsewhere, if only null is compared. */
const noShape: Shape = { kind: "boolean" };

function isUnsaid(shape: Shape): boolean {
  return shape.kind === "any" && shape.scalar === undefined;
}

function isRecord(shape: Shape): shape is Shape & { kind: "record" | "map" } {
  return shape.kind === "record" || shape.kind === "map";
}

function asRecord(shape: Shape & { kind: "record" | "map" }): RecordShape {
  return shape.kind === "record" ? shape : { kind: "record", fields: [], rest: shape.value };
}

function asUnion(reference: Reference): UnionShape {
  const { shape } = reference;
  return shape.kind === "union" ? shape : { kind: "union", members: [{ shape, nullable: false }] };
}

function valuesOf(shape: Shape): readonly ChoiceValue[] | undefined {
  if (shape.kind === "literal") return [shape.value];
  return shape.kind === "choice" ? shape.values.map(({ value }) => value) : undefined;
}

/**
 * A member without a name is the same as long as its kind is. Records of one union are distinguished by their fields.
 */
function memberSignature(member: Reference, table: ShapeTable): string {
  const { shape } = member;
  if (shape.kind === "record")
    return `{${shape.fields
      .map(({ name }) => name)
      .sort()
      .join(",")}}`;
  if (shape.kind === "list") return `[${memberSignature(resolveReference(shape.item, table), table)}]`;
  return shape.kind === "literal"
    ? `=${JSON.stringify(shape.value)}`
    : ["text", "integer", "number"].includes(shape.kind)
      ? shape.kind
      : referenceSignature({ ...member, nullable: false });
}

function isAlike(before: Shape, after: Shape): boolean {
  const kindOf = (shape: Shape): string =>
    shape.kind === "integer" ? "number" : shapeFamily(shape) === "choice of string" ? "text" : shape.kind;
  const isLeaf = ["number", "text"].includes(kindOf(before));
  if (isLeaf && before.kind !== "literal" && after.kind !== "literal" && kindOf(before) === kindOf(after)) return true;
  if (shapeFamily(before) !== shapeFamily(after)) return false;
  if (before.kind !== "record" || after.kind !== "record") return before.kind !== "literal" && before.kind !== "choice";
  const names = new Set(after.fields.map(({ name }) => name));
  const shared = before.fields.filter(({ name }) => names.has(name)).length;
  return shared * 2 > Math.max(before.fields.length, after.fields.length);
}

function requiredFields(member: Reference, table: ShapeTable): Set<string> | undefined {
  const { shape } = resolveReference(member, table);
  return shape.kind === "record" ? new Set(shape.fields.map(({ name }) => name)) : undefined;
}

/** The fields that every member of a union has, which source can read without distinguishing members. */
function commonFields(union: UnionShape, table: ShapeTable): Set<string> {
  const [first, ...others] = union.members.map((member) => requiredFields(member, table));
  return new Set([...(first ?? [])].filter((name) => others.every((fields) => fields?.has(name) === true)));
}
