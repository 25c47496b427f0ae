import {
  isTypeDefinitionNode,
  isTypeExtensionNode,
  Kind,
  print,
  type ConstDirectiveNode,
  type DefinitionNode,
  type DirectiveDefinitionNode,
  type EnumValueDefinitionNode,
  type FieldDefinitionNode,
  type InputValueDefinitionNode,
  type NamedTypeNode,
  type NameNode,
  type OperationTypeNode,
  type SchemaDefinitionNode,
  type StringValueNode,
  type TypeDefinitionNode,
  type TypeExtensionNode,
} from "graphql";
import type { SetAside } from "../contract/model.js";
import { placeOfNode } from "./graphqlPlace.js";

/** One type with all parts of its definition and its extensions, without contradictions. */
export interface MergedType {
  readonly kind: TypeKind;
  readonly name: NameNode;
  readonly description?: StringValueNode | undefined;
  readonly directives: readonly ConstDirectiveNode[];
  interfaces: readonly NamedTypeNode[];
  fields: readonly FieldDefinitionNode[];
  inputs: readonly InputValueDefinitionNode[];
  values: readonly EnumValueDefinitionNode[];
  members: readonly NamedTypeNode[];
}

export type TypeKind = "scalar" | "object" | "interface" | "union" | "enum" | "input";

/** All definitions of a schema's texts as one schema. */
export interface MergedSchema {
  readonly types: ReadonlyMap<string, MergedType>;
  readonly directives: readonly DirectiveDefinitionNode[];
  /** The root operation types of the schema definition and its extensions; empty if it has none. */
  readonly roots: ReadonlyMap<OperationTypeNode, NamedTypeNode>;
  readonly description?: StringValueNode | undefined;
  readonly setAside: readonly SetAside[];
  /** Definitions of types that were defined before. Both count, as if the second were an extension. */
  readonly repeated: readonly { readonly first: TypeDefinitionNode; readonly again: TypeDefinitionNode }[];
}

const kinds: Readonly<Record<string, TypeKind>> = {
  [Kind.SCALAR_TYPE_DEFINITION]: "scalar",
  [Kind.SCALAR_TYPE_EXTENSION]: "scalar",
  [Kind.OBJECT_TYPE_DEFINITION]: "object",
  [Kind.OBJECT_TYPE_EXTENSION]: "object",
  [Kind.INTERFACE_TYPE_DEFINITION]: "interface",
  [Kind.INTERFACE_TYPE_EXTENSION]: "interface",
  [Kind.UNION_TYPE_DEFINITION]: "union",
  [Kind.UNION_TYPE_EXTENSION]: "union",
  [Kind.ENUM_TYPE_DEFINITION]: "enum",
  [Kind.ENUM_TYPE_EXTENSION]: "enum",
  [Kind.INPUT_OBJECT_TYPE_DEFINITION]: "input",
  [Kind.INPUT_OBJECT_TYPE_EXTENSION]: "input",
};

/** The directives with a meaning for clients. All others are for the server of the schema. */
const meaningful = new Set(["deprecated", "specifiedBy", "oneOf"]);
const builtIn = new Set(["String", "Int", "Float", "Boolean", "ID"]);

/**
 * Merges definitions and extensions by name (GraphQL specification, section 3). An extension without a definition
 * counts as the definition, as in schemas that are composed elsewhere. Contradictions are skipped.
 *
 * @param definitions those of all texts, in order
 */
export function mergeDefinitions(definitions: readonly DefinitionNode[]): MergedSchema {
  const setAside: SetAside[] = [];
  const types = new Map<string, MergedType>();
  const directives = new Map<string, DirectiveDefinitionNode>();
  const roots = new Map<OperationTypeNode, NamedTypeNode>();
  let description: StringValueNode | undefined;
  const first = new Map<string, TypeDefinitionNode>();
  const extensions: (TypeDefinitionNode | TypeExtensionNode)[] = [];
  const repeated: { first: TypeDefinitionNode; again: TypeDefinitionNode }[] = [];
  for (const node of definitions) {
    if (node.kind === Kind.SCHEMA_DEFINITION || node.kind === Kind.SCHEMA_EXTENSION) {
      if (node.kind === Kind.SCHEMA_DEFINITION) description = node.description;
      collectRoots(node, roots, setAside);
    } else if (node.kind === Kind.DIRECTIVE_DEFINITION) {
      if (!directives.has(node.name.value) && !meaningful.has(node.name.value)) directives.set(node.name.value, node);
    } else if (node.kind === Kind.OPERATION_DEFINITION || node.kind === Kind.FRAGMENT_DEFINITION) {
      const what = `the ${node.kind === Kind.FRAGMENT_DEFINITION ? "fragment" : node.operation} ${node.name?.value ?? ""}`;
      setAside.push(aside(what.trim(), "it belongs in a query document, but this is a schema", node));
    } else if (isTypeDefinitionNode(node)) {
      const known = first.get(node.name.value);
      if (!known) defineType(node, first, { types, setAside });
      else if (print(known) !== print(node)) {
        extensions.push(node);
        if (known.kind === node.kind) repeated.push({ first: known, again: node });
      }
    } else if (isTypeExtensionNode(node)) extensions.push(node);
  }
  for (const node of extensions) extendType(node, types, setAside);
  for (const type of types.values()) {
    type.fields = withoutClashes(type.fields, (field) => `${type.name.value}.${field.name.value}`, setAside);
    type.inputs = withoutClashes(type.inputs, (field) => `${type.name.value}.${field.name.value}`, setAside);
    type.values = withoutClashes(type.values, (value) => `${type.name.value}.${value.name.value}`, setAside);
    type.interfaces = eachOnce(type.interfaces);
    type.members = eachOnce(type.members);
  }
  return { types, directives: [...directives.values()], roots, description, setAside, repeated };
}

function collectRoots(
  node: Pick<SchemaDefinitionNode, "loc"> & { readonly operationTypes?: SchemaDefinitionNode["operationTypes"] },
  roots: Map<OperationTypeNode, NamedTypeNode>,
  setAside: SetAside[],
): void {
  for (const { operation, type } of node.operationTypes ?? []) {
    const known = roots.get(operation);
    if (known && known.name.value !== type.name.value)
      setAside.push(
        aside(
          `${type.name.value} as ${operation} type`,
          `\`${known.name.value}\` is the ${operation} type already`,
          type,
        ),
      );
    else roots.set(operation, type);
  }
}

function defineType(
  node: TypeDefinitionNode,
  first: Map<string, TypeDefinitionNode>,
  { types, setAside }: { readonly types: Map<string, MergedType>; readonly setAside: SetAside[] },
): void {
  const name = node.name.value;
  // Some schemas write out what every schema has. It has the same meaning.
  if (builtIn.has(name) && node.kind === Kind.SCALAR_TYPE_DEFINITION) return;
  if (name.startsWith("__") || builtIn.has(name)) {
    setAside.push(aside(name, "its name is reserved by GraphQL", node));
    return;
  }
  first.set(name, node);
  types.set(name, partsOf(node));
}

function extendType(
  node: TypeDefinitionNode | TypeExtensionNode,
  types: Map<string, MergedType>,
  setAside: SetAside[],
): void {
  const name = node.name.value;
  const known = types.get(name);
  const more = partsOf(node);
  if (!known) {
    if (builtIn.has(name) || name.startsWith("__")) return;
    types.set(name, more);
    return;
  }
  if (known.kind !== more.kind) {
    const isDefinition = isTypeDefinitionNode(node);
    const why = isDefinition
      ? `\`${name}\` is defined as ${article(known.kind)} before`
      : `\`${name}\` is ${article(known.kind)}, and this extends ${article(more.kind)}`;
    setAside.push(aside(isDefinition ? `another ${name}` : `an extension of ${name}`, why, node));
    return;
  }
  types.set(name, {
    ...known,
    directives: [...known.directives, ...more.directives],
    interfaces: [...known.interfaces, ...more.interfaces],
    fields: [...known.fields, ...more.fields],
    inputs: [...known.inputs, ...more.inputs],
    values: [...known.values, ...more.values],
    members: [...known.members, ...more.members],
  });
}

/** Returns a kind of type with its article, for a sentence: "an enum". */
export function article(kind: TypeKind): string {
  return kind === "input" ? "an input type" : /^[aeiou]/.test(kind) ? `an ${kind}` : `a ${kind}`;
}

function partsOf(node: TypeDefinitionNode | TypeExtensionNode): MergedType {
  const kind = kinds[node.kind] ?? "scalar";
  const isInput = kind === "input";
  const fields = "fields" in node ? (node.fields ?? []) : [];
  return {
    kind,
    name: node.name,
    description: "description" in node ? node.description : undefined,
    directives: ownDirectives(node.directives),
    interfaces: "interfaces" in node ? (node.interfaces ?? []) : [],
    fields: isInput ? [] : (fields as readonly FieldDefinitionNode[]).map(plainField),
    inputs: isInput ? (fields as readonly InputValueDefinitionNode[]).map(plainInput) : [],
    values:
      "values" in node
        ? (node.values ?? []).map((value) => ({ ...value, directives: ownDirectives(value.directives) }))
        : [],
    members: "types" in node ? (node.types ?? []) : [],
  };
}

function plainField(field: FieldDefinitionNode): FieldDefinitionNode {
  return {
    ...field,
    directives: ownDirectives(field.directives),
    arguments: (field.arguments ?? []).map(plainInput),
  };
}

function plainInput(input: InputValueDefinitionNode): InputValueDefinitionNode {
  return { ...input, directives: ownDirectives(input.directives) };
}

/** Directives for clients, in a form that cannot fail: a reason that is not a string is left out. */
function ownDirectives(directives: readonly ConstDirectiveNode[] | undefined): readonly ConstDirectiveNode[] {
  if (directives === undefined || directives.length === 0) return none;
  const seen = new Set<string>();
  return directives.flatMap((directive): ConstDirectiveNode[] => {
    const name = directive.name.value;
    if (!meaningful.has(name) || seen.has(name)) return [];
    seen.add(name);
    const given = (directive.arguments ?? []).filter(
      (each) => each.value.kind === Kind.STRING && ["reason", "url"].includes(each.name.value),
    );
    return name === "specifiedBy" && given.length === 0 ? [] : [{ ...directive, arguments: given }];
  });
}

const none: readonly never[] = [];

/** Of two equal definitions one is enough. Of two different definitions, it is unknown which one is valid. */
function withoutClashes<T extends FieldDefinitionNode | InputValueDefinitionNode | EnumValueDefinitionNode>(
  nodes: readonly T[],
  coordinate: (node: T) => string,
  setAside: SetAside[],
): readonly T[] {
  const byName = new Map<string, T[]>();
  for (const node of nodes) {
    const known = byName.get(node.name.value);
    if (known) known.push(node);
    else byName.set(node.name.value, [node]);
  }
  if (byName.size === nodes.length) return nodes;
  return [...byName.values()].flatMap(([node, ...others]): T[] => {
    if (!node) return [];
    const other = others.find((each) => meaning(each) !== meaning(node));
    if (!other) return [node];
    setAside.push(aside(coordinate(node), "it is defined twice, and differently", other));
    return [];
  });
}

function meaning(node: FieldDefinitionNode | InputValueDefinitionNode | EnumValueDefinitionNode): string {
  const { description: _words, ...rest } = node;
  return print(rest);
}

function eachOnce(names: readonly NamedTypeNode[]): readonly NamedTypeNode[] {
  const byName = new Map(names.map((node) => [node.name.value, node]));
  return byName.size === names.length ? names : [...byName.values()];
}

/**
 * Returns a part of a schema that is skipped, with the reason.
 *
 * @param what the part, for example "Voyage.crew"
 * @param why the reason as a sentence
 */
export function aside(what: string, why: string, node: Parameters<typeof placeOfNode>[0]): SetAside {
  return { what, why, code: "graphql.schema", place: placeOfNode(node) };
}
