import {
  isAbstractType,
  isInterfaceType,
  isCompositeType,
  isLeafType,
  isListType,
  isNonNullType,
  isObjectType,
  Kind,
  TypeNameMetaFieldDef,
  type DirectiveNode,
  type FieldNode,
  type GraphQLCompositeType,
  type GraphQLField,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLOutputType,
  type SelectionNode,
  type SelectionSetNode,
} from "graphql";
import type { Field, RecordShape, Reference, Shape } from "../../contract/model.js";
import { shapeSignature } from "../../contract/sameShape.js";
import { placeOfNode } from "../graphqlPlace.js";
import { toReference } from "../readGraphqlContract.js";
import type { TypingContext } from "./typingContext.js";

export interface SelectionContext extends TypingContext {
  /**
   * The number of fields that may still be typed. Each fragment counts again wherever it is spread below another field.
   */
  readonly room: { left: number };
  /** Filled with the selection sets that need `__typename` added to their text. */
  readonly needTypename: Set<SelectionSetNode>;
}

/** The largest number of fields in one definition, with its fragments written out. */
export const mostFields = 20_000;

/** Thrown for a definition with more fields. */
export class TooManyFields extends Error {}

/** A selection set with the condition (of `@include`/`@skip` variables) under which it is present; "" is always. */
export interface ConditionalSet {
  readonly set: SelectionSetNode;
  readonly condition: string;
}

/** The selections on one object type. */
interface Collected {
  /** The conditions of the sets. Under none of them, there is no value to contain the fields. */
  readonly outer: readonly string[];
  readonly fields: Map<string, Merged>;
  /** The conditions under which each fragment is spread; sealed fragments only. */
  readonly seals: Map<string, string[]>;
  /** The conditions under which each fragment is spread, if fragments are types. */
  readonly spreads: Map<string, string[]>;
  /** The conditions under which a set was read. Spread again under one of them, it adds nothing. */
  readonly seen: Map<SelectionSetNode, Set<string>>;
}

/** All field nodes with the same response key. */
interface Merged {
  /** The type at the place of the selection, or the object type itself. */
  readonly owner: GraphQLCompositeType;
  readonly definition: GraphQLField<unknown, unknown>;
  readonly nodes: { readonly node: FieldNode; readonly condition: string }[];
}

/**
 * Returns the exact shape of the response to selection sets on one type (GraphQL specification, sections 5.3.2 and
 * 6.3.2). Fields are merged, aliases are applied, and an abstract type gets one union member for each group of object
 * types with the same fields.
 *
 * @throws Error if the type has no fields, which validation refuses
 */
export function typeSelections(
  sets: readonly ConditionalSet[],
  type: GraphQLNamedType,
  context: SelectionContext,
): Shape {
  if (!isCompositeType(type))
    throw new Error(`${type.name} has no fields to select. Validation should have reported it.`);
  if (isObjectType(type) || !sets.some(({ set }) => splits(set, type, { context })))
    return recordOf(collect(sets, type, { parent: type, context }), type, context);
  return unionOf(sets, type, context);
}

/** Whether a selection on an abstract type has fragments for only some of its object types. */
function splits(
  set: SelectionSetNode,
  type: GraphQLCompositeType,
  {
    context,
    seen = new Set<SelectionSetNode>(),
  }: { readonly context: SelectionContext; readonly seen?: Set<SelectionSetNode> | undefined },
): boolean {
  if (seen.has(set)) return false;
  seen.add(set);
  return set.selections.some((selection) => {
    if (selection.kind === Kind.FIELD) return false;
    const { condition, inner } = fragmentOf(selection, context);
    if (condition !== undefined && !alwaysHolds(condition, type, context)) return true;
    return splits(inner, type, { context, seen });
  });
}

/** Whether every value of a type also has the type of a condition. */
function alwaysHolds(condition: string, type: GraphQLCompositeType, context: SelectionContext): boolean {
  const { schema } = context;
  const wanted = schema.getType(condition);
  if (wanted === type) return true;
  // For types that the schema does not have yet, only the declared fields are known.
  if (context.isNamed && isAbstractType(type))
    return isInterfaceType(type) && isInterfaceType(wanted) && schema.isSubType(wanted, type);
  return (
    isAbstractType(wanted) &&
    (isObjectType(type) || isAbstractType(type)) &&
    possibleTypes(type, schema).every((each) => schema.isSubType(wanted, each))
  );
}

function possibleTypes(type: GraphQLCompositeType, schema: SelectionContext["schema"]): readonly GraphQLObjectType[] {
  return isAbstractType(type) ? [...schema.getPossibleTypes(type)].sort((a, b) => (a.name < b.name ? -1 : 1)) : [type];
}

function fragmentOf(
  selection: Exclude<SelectionNode, FieldNode>,
  { fragments }: SelectionContext,
): { condition: string | undefined; inner: SelectionSetNode } {
  if (selection.kind === Kind.INLINE_FRAGMENT)
    return { condition: selection.typeCondition?.name.value, inner: selection.selectionSet };
  const fragment = fragments.get(selection.name.value);
  if (!fragment) throw new Error(`Unknown fragment ${selection.name.value}. Validation should have reported it.`);
  return { condition: fragment.typeCondition.name.value, inner: fragment.selectionSet };
}

function unionOf(sets: readonly ConditionalSet[], type: GraphQLCompositeType, context: SelectionContext): Shape {
  const groups = new Map<string, { record: RecordShape; names: string[]; isAsked: boolean }>();
  for (const object of possibleTypes(type, context.schema)) {
    const record = recordOf(collect(sets, object, { parent: type, context }), object, context);
    const plain: RecordShape = { ...record, fields: record.fields.filter((field) => field.name !== "__typename") };
    const key = shapeSignature(plain) + ofFragments(plain.spreads ?? [], object, context);
    const isAsked = record.fields.some(({ name, required }) => name === "__typename" && required);
    const group = groups.get(key);
    if (group) group.names.push(object.name);
    else groups.set(key, { record: plain, names: [object.name], isAsked });
    if (group && !isAsked) group.isAsked = false;
  }
  const [first] = sets;
  // A set that is not always present does not always include the tag.
  const always = sets.find(({ condition }) => condition === "");
  for (const { set } of always ? [always] : sets) context.needTypename.add(set);
  const place = first?.set.loc ? placeOfNode(first.set) : { document: "", offset: 0, length: 1 };
  const members = [...groups.values()].map(({ record, names, isAsked }): Reference => {
    const tag: Field = {
      name: "__typename",
      type: { shape: tagOf(names, context), nullable: false },
      required: true,
      ...(isAsked ? {} : { added: true }),
      place,
    };
    const objects = context.isNamed ? { objects: names } : {};
    return { shape: { ...record, ...objects, fields: [tag, ...record.fields] }, nullable: false };
  });
  const shared = recordOf(collect(sets, type, { parent: type, context }), type, context);
  const newer: RecordShape = {
    ...shared,
    ...(context.isNamed ? { objects: [] } : {}),
    fields: shared.fields.filter((field) => field.name !== "__typename"),
  };
  const [only] = groups.values();
  const [member] = members;
  if (only && member && groups.size === 1 && shapeSignature(newer) === shapeSignature(only.record)) return member.shape;
  return {
    kind: "union",
    members,
    tag: { field: "__typename", values: [...groups.values()].map(({ names }) => names) },
    newer,
  };
}

/**
 * The fields of fragments for an object type. Types with the same fields for several fragments together, but different
 * fields for one of them, stay separate: as values of that fragment, they have different types.
 */
function ofFragments(names: readonly string[], object: GraphQLObjectType, context: SelectionContext): string {
  return names
    .map((name) => {
      const key = `${name} ${object.name}`;
      const known = context.answered.get(key);
      if (known !== undefined) return known;
      const fragment = context.fragments.get(name);
      const on = fragment && context.schema.getType(fragment.typeCondition.name.value);
      if (!fragment || !isCompositeType(on)) return "";
      const inside = { ...context, needTypename: new Set<SelectionSetNode>(), room: { left: mostFields } };
      const found = collect([{ set: fragment.selectionSet, condition: "" }], object, { parent: on, context: inside });
      const signature = shapeSignature(recordOf(found, object, inside));
      context.answered.set(key, signature);
      return signature;
    })
    .join(" ");
}

function tagOf(names: readonly string[], context: SelectionContext): Shape {
  const shape = typenames(names, context);
  return shape.kind === "choice" ? { ...shape, isTag: true } : shape;
}

function typenames(names: readonly string[], { isNamed }: SelectionContext): Shape {
  const [only] = names;
  if (only !== undefined && names.length === 1) return { kind: "literal", value: only };
  // The same with fewer possible types, so that the type that spreads a fragment is also a type of the fragment.
  if (isNamed) return { kind: "text" };
  return { kind: "choice", values: names.map((value) => ({ value })) };
}

function collect(
  sets: readonly ConditionalSet[],
  object: GraphQLCompositeType,
  { parent, context }: { readonly parent: GraphQLCompositeType; readonly context: SelectionContext },
): Collected {
  const outer = [...new Set(sets.map(({ condition }) => condition))];
  const collected: Collected = { outer, fields: new Map(), seals: new Map(), spreads: new Map(), seen: new Map() };
  for (const { set, condition } of sets) collectSet(set, condition, { object, parent, context, collected });
  return collected;
}

function collectSet(
  set: SelectionSetNode,
  condition: string,
  {
    object,
    parent,
    context,
    collected,
  }: {
    readonly object: GraphQLCompositeType;
    readonly parent: GraphQLCompositeType;
    readonly context: SelectionContext;
    readonly collected: Collected;
  },
): void {
  const merged = collected.fields;
  const seen = collected.seen.get(set) ?? new Set<string>();
  if (seen.has(condition)) return;
  collected.seen.set(set, seen.add(condition));
  for (const selection of set.selections) {
    const own = conditionOf(selection.directives ?? []);
    if (own === "never") continue;
    const together = [...new Set([...condition.split("&"), ...own.split("&")])]
      .filter((part) => part !== "")
      .sort()
      .join("&");
    if (selection.kind === Kind.FIELD) {
      const key = selection.alias?.value ?? selection.name.value;
      const found = fieldDefinition(object, parent, selection.name.value);
      if (!found) continue;
      const known = merged.get(key);
      if (known) known.nodes.push({ node: selection, condition: together });
      else merged.set(key, { ...found, nodes: [{ node: selection, condition: together }] });
      continue;
    }
    const { condition: typeCondition, inner } = fragmentOf(selection, context);
    if (typeCondition !== undefined && !alwaysHolds(typeCondition, object, context)) continue;
    if (context.isSealed && selection.kind === Kind.FRAGMENT_SPREAD) {
      const name = selection.name.value;
      collected.seals.set(name, [...(collected.seals.get(name) ?? []), together]);
      continue;
    }
    if (context.isNamed && selection.kind === Kind.FRAGMENT_SPREAD) {
      const name = selection.name.value;
      collected.spreads.set(name, [...(collected.spreads.get(name) ?? []), together]);
    }
    const within = typeCondition === undefined ? undefined : context.schema.getType(typeCondition);
    collectSet(inner, together, { object, parent: isCompositeType(within) ? within : parent, context, collected });
  }
}

function fieldDefinition(
  object: GraphQLCompositeType,
  parent: GraphQLCompositeType,
  name: string,
): Pick<Merged, "owner" | "definition"> | undefined {
  if (name === TypeNameMetaFieldDef.name) return { owner: object, definition: TypeNameMetaFieldDef };
  const own = "getFields" in object ? object.getFields()[name] : undefined;
  const shared = "getFields" in parent ? parent.getFields()[name] : undefined;
  // Taken from the interface if both are the same, because members with the same fields are one.
  if (shared && (!own || String(own.type) === String(shared.type))) return { owner: parent, definition: own ?? shared };
  return own && { owner: object, definition: own };
}

/**
 * The condition under which a selection is present: "" always, "never", or its variables, for example "include:$full".
 */
function conditionOf(directives: readonly DirectiveNode[]): string {
  const parts: string[] = [];
  for (const directive of directives) {
    const name = directive.name.value;
    if (name !== "include" && name !== "skip") continue;
    const value = directive.arguments?.find((argument) => argument.name.value === "if")?.value;
    if (value?.kind === Kind.BOOLEAN) {
      if (value.value !== (name === "include")) return "never";
    } else if (value?.kind === Kind.VARIABLE) parts.push(`${name}:$${value.name.value}`);
  }
  return parts.sort().join("&");
}

function recordOf(collected: Collected, object: GraphQLCompositeType, context: SelectionContext): RecordShape {
  context.room.left -= collected.fields.size;
  if (context.room.left < 0) throw new TooManyFields();
  const fields = [...collected.fields].map(([key, entry]): Field => {
    const { definition, nodes } = entry;
    const [first] = nodes;
    const description = definition === TypeNameMetaFieldDef ? undefined : definition.description?.trim();
    const conditions = nodes.map(({ condition }) => condition);
    const reason = [...absence(conditions, collected.outer), ...nullability(entry)].join(" ");
    return {
      name: key,
      type:
        definition === TypeNameMetaFieldDef
          ? { shape: typenameShape(object, context), nullable: false }
          : typeOutput(definition.type, nodes, context),
      required: isAlways(conditions, collected.outer),
      ...(description ? { description } : {}),
      ...(reason === "" ? {} : { reason }),
      ...(definition.deprecationReason == null ? {} : { deprecated: definition.deprecationReason }),
      place: first ? placeOfNode(first.node) : { document: "", offset: 0, length: 1 },
    };
  });
  const seals = [...collected.seals]
    .map(([fragment, conditions]) => ({ fragment, required: isAlways(conditions, collected.outer) }))
    .sort((a, b) => (a.fragment < b.fragment ? -1 : 1));
  const spreads = [...collected.spreads]
    .flatMap(([name, conditions]) => (isAlways(conditions, collected.outer) ? [name] : []))
    .sort();
  return {
    kind: "record",
    fields,
    ...(seals.length > 0 ? { seals } : {}),
    ...(spreads.length > 0 ? { spreads } : {}),
    ...(context.isNamed ? { objects: possibleTypes(object, context.schema).map(({ name }) => name) } : {}),
  };
}

/**
 * Whether something is present whenever the value that contains it is. This is so without a condition, under a
 * condition and its opposite, or under each condition of the value itself.
 */
function isAlways(conditions: readonly string[], outer: readonly string[]): boolean {
  return (
    outer.every((condition) => conditions.includes(condition)) ||
    conditions.some((condition) => condition === "" || conditions.includes(opposite(condition)))
  );
}

/** The condition that holds exactly if another does not; "never" for a condition of several parts, which has none. */
function opposite(condition: string): string {
  const [part = "", ...others] = condition.split("&");
  if (others.length > 0) return "never";
  return part.startsWith("skip:") ? part.replace(/^skip:/, "include:") : part.replace(/^include:/, "skip:");
}

/** The variables under which a field is left out, in words. */
function absence(conditions: readonly string[], outer: readonly string[]): string[] {
  if (isAlways(conditions, outer)) return [];
  const ways = [...new Set(conditions)].map((condition) =>
    condition
      .split("&")
      .map((part) => part.replace(/^include:(.*)$/, "`$1`").replace(/^skip:(.*)$/, "not `$1`"))
      .join(" and "),
  );
  return [`Only present with ${ways.join(", or with ")}.`];
}

/** The nullable types in the schema, as it writes them. */
function nullability({ owner, definition }: Merged): string[] {
  if (definition === TypeNameMetaFieldDef || !admitsNull(definition.type)) return [];
  return [`Nullable in the schema: \`${owner.name}.${definition.name}: ${String(definition.type)}\`.`];
}

function admitsNull(type: GraphQLOutputType): boolean {
  if (!isNonNullType(type)) return true;
  return isListType(type.ofType) && admitsNull(type.ofType.ofType as GraphQLOutputType);
}

function typenameShape(type: GraphQLCompositeType, context: SelectionContext): Shape {
  return typenames(
    possibleTypes(type, context.schema).map((each) => each.name),
    context,
  );
}

function typeOutput(type: GraphQLOutputType, nodes: Merged["nodes"], context: SelectionContext): Reference {
  if (isNonNullType(type)) return { ...typeOutput(type.ofType, nodes, context), nullable: false };
  if (isListType(type))
    return {
      shape: { kind: "list", item: typeOutput(type.ofType, nodes, context) },
      nullable: true,
    };
  if (isLeafType(type)) return toReference(type);
  return { shape: typeSelections(subSelections(nodes), type as GraphQLNamedType, context), nullable: true };
}

/** If every node has the same condition, their fields are present exactly if the field itself is. */
function subSelections(nodes: Merged["nodes"]): ConditionalSet[] {
  const shared = new Set(nodes.map(({ condition }) => condition)).size === 1;
  return nodes.flatMap(({ node, condition }) =>
    node.selectionSet ? [{ set: node.selectionSet, condition: shared ? "" : condition }] : [],
  );
}
