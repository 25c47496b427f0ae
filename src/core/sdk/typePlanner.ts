import { shapeFacts, type ShapeFacts } from "../contract/shapeFacts.js";
import type { Field, RecordShape, Reference, Shape, TypeDefinition, UnionShape } from "../contract/model.js";
import { resolveShape, type TypeTable } from "../contract/resolveShape.js";
import { referenceSignature } from "../contract/sameShape.js";
import { sortedBy } from "../text/sortedBy.js";
import { claimApart, spelledTypeName, typeNameFrom, type NameScope } from "./nameScope.js";
import type { Face, PlannedType } from "./sdkPlan.js";

/** The direction of a type. Forms are requests too, and only in forms can a field be bytes. */
type Direction = "answer" | "request" | "form";

/** The words of a name, from the outside in. */
type NameParts = readonly string[];

/**
 * Converts references of the model to references of a plan: every record, union and enum, inline or not, becomes a
 * planned type with a name. A named type whose fields differ by direction becomes two.
 */
export class TypePlanner {
  readonly types = new Map<string, PlannedType>();
  private readonly nameByKey: ReadonlyMap<string, string>;
  private readonly twoFaced: ReadonlySet<string>;
  private readonly withBytes: ReadonlySet<string>;
  /** Types whose name is decided once all wanted names are known. */
  private readonly unnamed = new Map<string, NameParts>();
  private open: (() => void)[] = [];
  /** The direction of the current type. Types inside one for both directions also have both. */
  private owner: Face | undefined;
  /** The current type, and the words of its name. */
  private outer: { readonly id: string; readonly parts: NameParts } | undefined;

  constructor(
    readonly table: TypeTable,
    readonly scope: NameScope,
    private readonly options: { readonly withNewer?: boolean } = {},
  ) {
    this.twoFaced = keysReaching(table, ({ hasFaces }) => hasFaces);
    this.withBytes = keysReaching(table, ({ hasBytes }) => hasBytes);
    this.nameByKey = definitionNames(table, scope);
  }

  /**
   * Returns the planned reference.
   *
   * @param name the name of an inline record, union or enum at this place: words from the outside in, or a claimed
   * name
   */
  reference(reference: Reference, direction: Direction, name: NameParts | string): Reference {
    const isClaimed = typeof name === "string";
    const planned = this.plan(reference, direction, {
      name: () => (isClaimed ? [name] : name),
      isRoot: true,
      isClaimed,
    });
    while (this.open.length > 0) {
      const work = this.open;
      this.open = [];
      for (const each of work) each();
    }
    return planned;
  }

  /** Names the inline types, once all wanted names are known. */
  settleNames(): void {
    const names = claimApart(this.scope, this.unnamed, {
      wanted: ([, parts]) => parts.join(""),
      apart: ([, parts]) => parts.join("_"),
      key: ([id]) => id,
    });
    for (const [[id], name] of names) {
      const type = this.types.get(id);
      if (type) this.types.set(id, { ...type, name });
    }
    this.unnamed.clear();
  }

  private plan(
    reference: Reference,
    direction: Direction,
    {
      name,
      isRoot = true,
      isClaimed = false,
    }: {
      readonly name: () => NameParts;
      readonly isRoot?: boolean | undefined;
      readonly isClaimed?: boolean | undefined;
    },
  ): Reference {
    const { shape, nullable } = reference;
    switch (shape.kind) {
      case "named":
        return this.named(reference, shape.key, direction);
      case "record":
      case "union":
      case "choice":
        // A shape without values needs no name.
        if (shape.kind === "union" && shape.members.length === 0) return reference;
        if (shape.kind === "union" && shape.newer && shape.members.length === 1 && this.options.withNewer !== true) {
          const [only] = shape.members;
          if (only) return this.plan({ ...only, nullable }, direction, { name, isRoot, isClaimed });
        }
        return { shape: { kind: "named", key: this.hoist(shape, direction, { parts: name(), isClaimed }) }, nullable };
      case "list": {
        const item = this.plan(shape.item, direction, {
          name: isRoot ? () => [...name(), "Item"] : name,
          isRoot: false,
        });
        return item === shape.item ? reference : { shape: { ...shape, item }, nullable };
      }
      case "map": {
        const value = this.plan(shape.value, direction, {
          name: isRoot ? () => [...name(), "Value"] : name,
          isRoot: false,
        });
        return value === shape.value ? reference : { shape: { kind: "map", value }, nullable };
      }
      case "tuple": {
        const items = shape.items.map((item, at) =>
          this.plan(item, direction, { name: () => [...name(), `Part${String(at + 1)}`], isRoot: false }),
        );
        const rest = shape.rest && this.plan(shape.rest, direction, { name: () => [...name(), "Rest"], isRoot: false });
        return { shape: { ...shape, items, ...(rest ? { rest } : {}) }, nullable };
      }
      case "bytes":
        return direction === "form" ? reference : { shape: { kind: "text", format: "binary" }, nullable };
      default:
        return reference;
    }
  }

  private named(reference: Reference, key: string, direction: Direction): Reference {
    const { nullable } = reference;
    const definition = this.table.get(key);
    if (!definition) return { shape: { kind: "any" }, nullable };
    const admitsNull = nullable || definition.nullable;
    const face: Face = this.twoFaced.has(key) ? faceOf(direction) : "both";
    // Forms come first: bytes in JSON are usually an error of the contract's author.
    const inJson = direction !== "form" && this.withBytes.has(key);
    const id = key + (face === "request" ? " to send" : "") + (inJson ? " in JSON" : "");
    if (!this.types.has(id)) {
      const base = this.nameByKey.get(key) ?? typeNameFrom(definition.name);
      const marks = [...(face === "request" ? ["ToSend"] : []), ...(inJson ? ["InJson"] : [])];
      const parts = [base, ...marks];
      if (marks.length > 0) this.unnamed.set(id, parts);
      this.add({ id, name: base, face, shape: definition.shape, ...wordsOf(definition) }, direction, parts);
    }
    return id === key && admitsNull === nullable
      ? reference
      : { shape: { kind: "named", key: id }, nullable: admitsNull };
  }

  private hoist(
    shape: Shape,
    direction: Direction,
    { parts, isClaimed }: { readonly parts: NameParts; readonly isClaimed: boolean },
  ): string {
    const path = `inline ${parts.join("_")}`;
    let id = path;
    for (let number = 2; this.types.has(id); number++) id = `${path} ${String(number)}`;
    if (!isClaimed) this.unnamed.set(id, parts);
    const description = "description" in shape ? shape.description : undefined;
    const words = description === undefined ? {} : { description };
    const { outer } = this;
    const inside = outer ? { inside: { type: outer.id, name: parts.slice(outer.parts.length).join("") } } : {};
    const face = this.owner ?? faceOf(direction);
    this.add({ id, name: parts.join(""), face, shape, ...inside, ...words }, direction, parts);
    return id;
  }

  private add(type: PlannedType, direction: Direction, parts: NameParts): void {
    this.types.set(type.id, type);
    // This is done later, so that a deeply nested contract cannot exhaust the stack.
    this.open.push(() => {
      this.owner = type.face;
      this.outer = { id: type.id, parts };
      const shape = this.inside(type.shape, direction, parts);
      if (shape !== type.shape) this.types.set(type.id, { ...type, shape });
      this.owner = undefined;
      this.outer = undefined;
    });
  }

  /** Plans the children of a shape that has a name of its own. */
  private inside(shape: Shape, direction: Direction, parts: NameParts): Shape {
    if (shape.kind === "record") return this.record(shape, direction, parts);
    if (shape.kind === "union") return this.union(shape, direction, parts);
    if (shape.kind === "choice") return shape;
    return this.plan({ shape, nullable: false }, direction, { name: () => parts }).shape;
  }

  private record(shape: RecordShape, direction: Direction, parts: NameParts): RecordShape {
    const against = direction === "answer" ? "request" : "answer";
    const fields: Field[] = [];
    let isAsItWas = true;
    for (const field of shape.fields) {
      if (field.face === against) {
        isAsItWas = false;
        continue;
      }
      const type = this.plan(field.type, direction, {
        name: () => [...parts, typeNameFrom(field.name)],
        isRoot: false,
      });
      isAsItWas &&= type === field.type;
      // Most fields need no other type, and copies of them all would take a large part of planning.
      fields.push(type === field.type ? field : { ...field, type });
    }
    const rest = shape.rest && this.plan(shape.rest, direction, { name: () => [...parts, "Rest"], isRoot: false });
    return isAsItWas && rest === shape.rest ? shape : { ...shape, fields, ...(rest ? { rest } : {}) };
  }

  private union(shape: UnionShape, direction: Direction, parts: NameParts): UnionShape {
    const seen = new Set<string>();
    const members: Reference[] = [];
    const values: (readonly string[])[] = [];
    shape.members.forEach((member, at) => {
      const planned = this.plan(member, direction, {
        name: () => [...parts, this.memberName(shape, at)],
        isRoot: false,
      });
      const signature = referenceSignature(planned);
      if (seen.has(signature)) return;
      seen.add(signature);
      members.push(planned);
      values.push(shape.tag?.values[at] ?? []);
    });
    const { newer, tag } = shape;
    if (newer && tag && this.options.withNewer === true) {
      members.push(
        this.plan(newerMember(newer, tag.field), direction, { name: () => [...parts, "Newer"], isRoot: false }),
      );
      values.push([]);
    }
    return { kind: "union", members, ...(tag ? { tag: { field: tag.field, values } } : {}) };
  }

  /** Named after its tag if it has one, because a position changes as soon as a member is added before it. */
  private memberName(union: UnionShape, at: number): string {
    const values = union.tag?.values[at] ?? literalsOf(union.members[at], this.table);
    const [first, second] = values;
    if (first === undefined) return `Option${String(at + 1)}`;
    if (second === undefined) return typeNameFrom(first);
    return values.length === 2 ? `${typeNameFrom(first)}Or${typeNameFrom(second)}` : "Other";
  }
}

/** The format of a tag whose value is not one of the known ones. */
export const newerTag = "a type that the schema does not have yet";

function newerMember(shape: RecordShape, tag: string): Reference {
  const [first] = shape.fields;
  const place = first?.place ?? { document: "", offset: 0, length: 1 };
  const type: Reference = { shape: { kind: "text", format: newerTag }, nullable: false };
  return {
    shape: { ...shape, fields: [{ name: tag, type, required: true, place }, ...shape.fields] },
    nullable: false,
  };
}

/** Exact names come first: `BerthSize` keeps its name next to `berth-size`, which is then spelled out. */
function definitionNames(table: TypeTable, scope: NameScope): Map<string, string> {
  const exact: TypeDefinition[] = [];
  const others: TypeDefinition[] = [];
  for (const type of sortedBy(table.values(), ({ key }) => key))
    (typeNameFrom(type.name) === type.name ? exact : others).push(type);
  const names = new Map<string, string>();
  for (const group of [exact, others]) {
    const claimed = claimApart(scope, group, {
      wanted: ({ name }) => typeNameFrom(name),
      apart: ({ name }) => spelledTypeName(name),
      key: ({ key }) => key,
    });
    for (const [{ key }, name] of claimed) names.set(key, name);
  }
  return names;
}

function wordsOf(definition: TypeDefinition): { description?: string; deprecated?: string } {
  return {
    ...(definition.description === undefined ? {} : { description: definition.description }),
    ...(definition.deprecated === undefined ? {} : { deprecated: definition.deprecated }),
  };
}

function literalsOf(member: Reference | undefined, table: TypeTable): string[] {
  const shape = member && resolveShape(member.shape, table);
  if (shape?.kind !== "record") return [];
  const literal = shape.fields.map((field) => field.type.shape).find((each) => each.kind === "literal");
  return literal ? [String(literal.value)] : [];
}

function faceOf(direction: Direction): "answer" | "request" {
  return direction === "answer" ? "answer" : "request";
}

/** The keys of the types of a kind, and of all types that use one of them. */
function keysReaching(table: TypeTable, isWanted: (facts: ShapeFacts) => boolean): Set<string> {
  const found = new Set<string>();
  for (const { key, shape } of table.values()) if (isWanted(shapeFacts(shape))) found.add(key);
  if (found.size === 0) return found;
  const usedBy = new Map<string, string[]>();
  for (const { key, shape } of table.values()) for (const used of shapeFacts(shape).names) pushTo(usedBy, used, key);
  // A set that grows during the loop is read to its end.
  for (const key of found) for (const user of usedBy.get(key) ?? []) found.add(user);
  return found;
}

function pushTo(map: Map<string, string[]>, key: string, value: string): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}
