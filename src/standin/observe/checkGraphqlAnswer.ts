import {
  getNamedType,
  isAbstractType,
  isEnumType,
  isInterfaceType,
  isLeafType,
  isListType,
  isNonNullType,
  isObjectType,
  isScalarType,
  Kind,
  type FragmentDefinitionNode,
  type GraphQLAbstractType,
  type GraphQLInterfaceType,
  type GraphQLObjectType,
  type GraphQLOutputType,
  type GraphQLSchema,
  type OperationDefinitionNode,
  type SelectionSetNode,
} from "graphql";
import { isData, type Data } from "../../core/text/parseData.js";

/** What a response is validated against. */
export interface AnswerContext {
  readonly schema: GraphQLSchema;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
  /** The paths of the response's errors, at which null is expected. */
  readonly failed: readonly string[];
  /** The variables as they were sent, for `@skip` and `@include`. */
  readonly variables: Data;
}

/**
 * Validates the data of a GraphQL response against the schema and the selection (GraphQL specification, section 6.4).
 *
 * @returns messages that begin with the path
 */
export function checkGraphqlAnswer(
  operation: OperationDefinitionNode,
  root: GraphQLObjectType,
  { data, context }: { readonly data: unknown; readonly context: AnswerContext },
): string[] {
  const found: string[] = [];
  if (!isData(data)) return [`/data: must be an object, but is ${kindOf(data)}`];
  checkSelection(operation.selectionSet, root, { data, walk: { ...context, path: "/data", found } });
  return [...new Set(found)];
}

interface Walk extends AnswerContext {
  readonly path: string;
  readonly found: string[];
}

function checkSelection(
  set: SelectionSetNode,
  type: GraphQLObjectType | GraphQLInterfaceType,
  { data, walk }: { readonly data: Data; readonly walk: Walk },
): void {
  const fields = new Map<string, { name: string; isSure: boolean; sets: SelectionSetNode[] }>();
  collect(set, type, { isSure: true, fields, walk });
  for (const [key, { name, isSure, sets }] of fields) {
    const path = `${walk.path}/${key}`;
    if (!Object.hasOwn(data, key)) {
      if (isSure) walk.found.push(`${path}: is selected, but missing`);
      continue;
    }
    if (name === "__typename") {
      const isItself = isObjectType(type) ? data[key] === type.name : isTypeOf(type, data[key], walk.schema);
      if (!isItself)
        walk.found.push(
          `${path}: must be ${isObjectType(type) ? "" : "a type of "}${type.name}, but is ${shown(data[key])}`,
        );
      continue;
    }
    const field = type.getFields()[name];
    // Introspection fields have types of their own.
    if (field) checkValue(field.type, sets, { value: data[key], walk: { ...walk, path } });
  }
}

function collect(
  set: SelectionSetNode,
  type: GraphQLObjectType | GraphQLInterfaceType,
  {
    isSure,
    fields,
    walk,
  }: {
    readonly isSure: boolean;
    readonly fields: Map<string, { name: string; isSure: boolean; sets: SelectionSetNode[] }>;
    readonly walk: Walk;
  },
): void {
  for (const selection of set.selections) {
    const chance = included(selection.directives ?? [], walk.variables);
    if (chance === "never") continue;
    const sure = isSure && chance === "always";
    if (selection.kind === Kind.FIELD) {
      const key = selection.alias?.value ?? selection.name.value;
      const known = fields.get(key) ?? { name: selection.name.value, isSure: false, sets: [] };
      if (selection.selectionSet) known.sets.push(selection.selectionSet);
      fields.set(key, { ...known, isSure: known.isSure || sure });
      continue;
    }
    const fragment = selection.kind === Kind.FRAGMENT_SPREAD ? walk.fragments.get(selection.name.value) : undefined;
    const condition = selection.kind === Kind.INLINE_FRAGMENT ? selection.typeCondition : fragment?.typeCondition;
    const inner = selection.kind === Kind.INLINE_FRAGMENT ? selection.selectionSet : fragment?.selectionSet;
    const on = condition === undefined ? type : walk.schema.getType(condition.name.value);
    const applies = on === type || (isAbstractType(on) && walk.schema.isSubType(on, type));
    if (inner && applies) collect(inner, type, { isSure: sure, fields, walk });
  }
}

/** Whether `@skip` and `@include` leave a selection in. */
function included(
  directives: readonly {
    name: { value: string };
    arguments?: readonly { value: { kind: string; value?: unknown; name?: { value: string } } }[];
  }[],
  variables: Data,
): "always" | "never" | "perhaps" {
  let chance: "always" | "never" | "perhaps" = "always";
  for (const { name, arguments: args } of directives) {
    if (name.value !== "skip" && name.value !== "include") continue;
    const given = args?.[0]?.value;
    const value = given?.kind === Kind.VARIABLE ? variables[given.name?.value ?? ""] : given?.value;
    if (typeof value !== "boolean") chance = "perhaps";
    else if (value === (name.value === "skip")) return "never";
  }
  return chance;
}

function checkValue(
  type: GraphQLOutputType,
  sets: readonly SelectionSetNode[],
  { value, walk }: { readonly value: unknown; readonly walk: Walk },
): void {
  const { path, found, failed } = walk;
  if (value === null) {
    const isFailed = failed.some((each) => each === path || each.startsWith(`${path}/`));
    if (isNonNullType(type) && !isFailed) found.push(`${path}: must not be null`);
    return;
  }
  if (isNonNullType(type)) {
    checkValue(type.ofType, sets, { value, walk });
    return;
  }
  if (isListType(type)) {
    const item = type.ofType;
    if (!Array.isArray(value)) found.push(`${path}: must be a list, but is ${kindOf(value)}`);
    else
      for (const each of value as unknown[])
        checkValue(item, sets, { value: each, walk: { ...walk, path: `${path}/*` } });
    return;
  }
  if (isLeafType(type)) {
    checkLeaf(type, value, walk);
    return;
  }
  if (!isData(value)) {
    found.push(`${path}: must be an object, but is ${kindOf(value)}`);
    return;
  }
  const concrete = concreteType(type, value, walk);
  if (!concrete) return;
  const [first] = sets;
  if (first)
    checkSelection({ ...first, selections: sets.flatMap(({ selections }) => selections) }, concrete, {
      data: value,
      walk,
    });
}

/**
 * The type with a value's fields. If a value of an abstract type has no type name, an interface has the common fields,
 * and a union has none.
 */
function concreteType(
  type: GraphQLOutputType,
  value: Data,
  { schema, path, found }: Walk,
): GraphQLObjectType | GraphQLInterfaceType | undefined {
  const abstract = getNamedType(type);
  if (!isAbstractType(abstract)) return isObjectType(abstract) ? abstract : undefined;
  const name = value["__typename"];
  if (typeof name !== "string") return isInterfaceType(abstract) ? abstract : undefined;
  const named = schema.getType(name);
  if (isObjectType(named) && isTypeOf(abstract, name, schema)) return named;
  found.push(`${path}/__typename: must be a type of ${abstract.name}, but is ${shown(name)}`);
  return undefined;
}

/** Whether a name is that of a possible type of an abstract type. */
function isTypeOf(abstract: GraphQLAbstractType, name: unknown, schema: GraphQLSchema): boolean {
  return schema.getPossibleTypes(abstract).some((each) => each.name === name);
}

const fitsScalar: Readonly<Record<string, readonly [string, (value: unknown) => boolean]>> = {
  Int: ["an integer of 32 bits", (value) => Number.isInteger(value) && Math.abs(Number(value)) <= 2 ** 31],
  Float: ["a number", (value) => typeof value === "number"],
  String: ["text", (value) => typeof value === "string"],
  Boolean: ["true or false", (value) => typeof value === "boolean"],
  ID: ["a string or an integer", (value) => typeof value === "string" || Number.isInteger(value)],
};

function checkLeaf(type: GraphQLOutputType, value: unknown, { path, found }: Walk): void {
  if (isEnumType(type)) {
    const values = type.getValues().map(({ name }) => name);
    if (typeof value !== "string" || !values.includes(value))
      found.push(`${path}: must be one of ${values.join(", ")}, but is ${shown(value)}`);
    return;
  }
  const rule = isScalarType(type) && Object.hasOwn(fitsScalar, type.name) ? fitsScalar[type.name] : undefined;
  if (rule && !rule[1](value)) found.push(`${path}: must be ${rule[0]}, but is ${kindOf(value)}`);
}

function kindOf(value: unknown): string {
  if (value === null || value === undefined) return "null";
  if (Array.isArray(value)) return "a list";
  return { string: "text", number: "a number", boolean: "true or false" }[typeof value as string] ?? "an object";
}

/** Only words are shown: a longer text could contain anything. */
function shown(value: unknown): string {
  return typeof value === "string" && /^\w{1,40}$/.test(value) ? value : kindOf(value);
}
