import { argumentOf } from "../use/coordinate.js";
import {
  Kind,
  type DefinitionNode,
  type DocumentNode,
  type FieldDefinitionNode,
  type InputValueDefinitionNode,
  type NamedTypeNode,
  type OperationTypeNode,
  type TypeNode,
} from "graphql";
import type { SetAside } from "../contract/model.js";
import { aside, article, mergeDefinitions, type MergedSchema, type MergedType } from "./mergeDefinitions.js";

export interface SoundSchema {
  /** Definitions only, each once. All references in it resolve. */
  readonly document: DocumentNode;
  readonly setAside: readonly SetAside[];
  readonly repeated: MergedSchema["repeated"];
}

/**
 * Returns the valid part of a schema (GraphQL specification, section 3). An invalid part, and every part that cannot be
 * used without it, is skipped with its reason. The rest is a valid schema.
 *
 * @param definitions those of all texts
 */
export function soundSchema(definitions: readonly DefinitionNode[]): SoundSchema {
  const merged = mergeDefinitions(definitions);
  const types = new Map(merged.types);
  const setAside = [...merged.setAside];
  // Skipping a part can invalidate another one. Each round only removes parts.
  while (pruneOnce(types, setAside));
  const roots = soundRoots(merged, types, setAside);
  return {
    document: { kind: Kind.DOCUMENT, definitions: definitionsOf(merged, types, roots) },
    setAside,
    repeated: merged.repeated,
  };
}

type Types = Map<string, MergedType>;

const scalars = new Set(["String", "Int", "Float", "Boolean", "ID"]);

/** One round over all types. @returns whether anything was removed */
function pruneOnce(types: Types, setAside: SetAside[]): boolean {
  const before = setAside.length;
  for (const type of [...types.values()]) {
    const own = type.name.value;
    if (type.kind === "object" || type.kind === "interface") {
      type.fields = kept(type.fields, (field) => soundField(own, field, { types, setAside }));
      type.interfaces = kept(type.interfaces, (node) => {
        const why = whyNotImplemented(type, node, types);
        if (why !== undefined) setAside.push(aside(`${own} as ${node.name.value}`, why, node));
        return why === undefined ? node : undefined;
      });
    }
    if (type.kind === "input") {
      const problemWith = type.inputs.find((input) => isRequired(input) && whyNoInput(input.type, types) !== undefined);
      if (problemWith) {
        const why = whyNoInput(problemWith.type, types) ?? "";
        drop(type, `its field \`${problemWith.name.value}\` is required, and ${why}`, { types, setAside });
        continue;
      }
      type.inputs = kept(type.inputs, (input) => soundInput(`${own}.${input.name.value}`, input, { types, setAside }));
    }
    if (type.kind === "union")
      type.members = kept(type.members, (node) => {
        const member = types.get(node.name.value);
        if (member?.kind === "object") return node;
        const why = member ? `it is ${article(member.kind)}, but a union consists of objects` : "there is no such type";
        setAside.push(aside(`${node.name.value} in ${own}`, why, node));
        return undefined;
      });
    const why = whyEmpty(type);
    if (why !== undefined) drop(type, why, { types, setAside });
  }
  return setAside.length > before;
}

function drop(
  type: MergedType,
  why: string,
  { types, setAside }: { readonly types: Types; readonly setAside: SetAside[] },
): void {
  types.delete(type.name.value);
  setAside.push(aside(type.name.value, why, type.name));
}

function whyEmpty(type: MergedType): string | undefined {
  if ((type.kind === "object" || type.kind === "interface") && type.fields.length === 0) return "it has no field left";
  if (type.kind === "input" && type.inputs.length === 0) return "it has no field left";
  if (type.kind === "union" && type.members.length === 0) return "it has no member left";
  if (type.kind === "enum" && type.values.length === 0) return "it has no value left";
  return undefined;
}

function soundField(
  owner: string,
  field: FieldDefinitionNode,
  { types, setAside }: { readonly types: Types; readonly setAside: SetAside[] },
): FieldDefinitionNode | undefined {
  const coordinate = `${owner}.${field.name.value}`;
  if (field.name.value.startsWith("__")) {
    setAside.push(aside(coordinate, "names that begin with two underscores are reserved", field));
    return undefined;
  }
  const why = whyNoOutput(field.type, types);
  if (why !== undefined) {
    setAside.push(aside(coordinate, why, field.type));
    return undefined;
  }
  const given = field.arguments ?? [];
  const needed = given.find((each) => isRequired(each) && whyNoInput(each.type, types) !== undefined);
  if (needed) {
    const reason = whyNoInput(needed.type, types) ?? "";
    setAside.push(aside(coordinate, `its argument \`${needed.name.value}\` is required, and ${reason}`, needed.type));
    return undefined;
  }
  const sound = kept(given, (each, at) => {
    const label = argumentOf(coordinate, each.name.value);
    if (given.findIndex((other) => other.name.value === each.name.value) === at)
      return soundInput(label, each, { types, setAside });
    setAside.push(aside(`another ${label}`, "an argument of that name is defined before", each));
    return undefined;
  });
  return sound === given ? field : { ...field, arguments: sound };
}

function soundInput(
  coordinate: string,
  input: InputValueDefinitionNode,
  { types, setAside }: { readonly types: Types; readonly setAside: SetAside[] },
): InputValueDefinitionNode | undefined {
  const why = input.name.value.startsWith("__")
    ? "names that begin with two underscores are reserved"
    : whyNoInput(input.type, types);
  if (why === undefined) return input;
  setAside.push(aside(coordinate, why, input.type));
  return undefined;
}

function whyNoOutput(type: TypeNode, types: Types): string | undefined {
  if (listsIn(type) > deepestList) return `its lists are nested more than ${String(deepestList)} levels deep`;
  const name = namedOf(type);
  if (scalars.has(name)) return undefined;
  const found = types.get(name);
  if (!found) return `there is no type \`${name}\``;
  return found.kind === "input" ? `\`${name}\` is an input type, which cannot be in a response` : undefined;
}

function whyNoInput(type: TypeNode, types: Types): string | undefined {
  if (listsIn(type) > deepestList) return `its lists are nested more than ${String(deepestList)} levels deep`;
  const name = namedOf(type);
  if (scalars.has(name)) return undefined;
  const found = types.get(name);
  if (!found) return `there is no type \`${name}\``;
  return ["scalar", "enum", "input"].includes(found.kind)
    ? undefined
    : `\`${name}\` is ${article(found.kind)}, which cannot be an argument`;
}

/** The largest nesting of lists. Not every tool that reads the schema can walk through deeper ones. */
const deepestList = 100;

function listsIn(type: TypeNode): number {
  let count = 0;
  let inner = type;
  while (inner.kind !== Kind.NAMED_TYPE) {
    if (inner.kind === Kind.LIST_TYPE) count++;
    inner = inner.type;
  }
  return count;
}

function isRequired(input: InputValueDefinitionNode): boolean {
  return input.type.kind === Kind.NON_NULL_TYPE && input.defaultValue === undefined;
}

/** Returns why a type does not satisfy an interface that it declares (section 3.6.1, IsValidImplementation). */
function whyNotImplemented(type: MergedType, { name }: NamedTypeNode, types: Types): string | undefined {
  const wanted = types.get(name.value);
  if (!wanted) return "there is no such interface";
  if (wanted.kind !== "interface") return `\`${name.value}\` is ${article(wanted.kind)}, not an interface`;
  if (name.value === type.name.value) return "a type cannot implement itself";
  const declared = new Set(type.interfaces.map((each) => each.name.value));
  const missing = wanted.interfaces.find(
    (each) => !declared.has(each.name.value) && types.get(each.name.value)?.kind === "interface",
  );
  if (missing)
    return missing.name.value === type.name.value
      ? "the two implement each other"
      : `it does not implement \`${missing.name.value}\` too`;
  for (const field of wanted.fields) {
    const own = type.fields.find((each) => each.name.value === field.name.value);
    if (!own) return `it has no field \`${field.name.value}\``;
    if (!isSubtype(own.type, field.type, types))
      return `its \`${field.name.value}\` has another type than the interface's`;
    const args = field.arguments ?? [];
    const changed = args.find((argument) => {
      const same = (own.arguments ?? []).find((each) => each.name.value === argument.name.value);
      return !same || spelled(same.type) !== spelled(argument.type);
    });
    if (changed) return `its \`${field.name.value}\` lacks the argument \`${changed.name.value}\` of the interface's`;
    const extra = (own.arguments ?? []).find(
      (each) => isRequired(each) && !args.some((argument) => argument.name.value === each.name.value),
    );
    if (extra) return `its \`${field.name.value}\` requires \`${extra.name.value}\`, which the interface's does not`;
  }
  return undefined;
}

/** IsValidImplementationFieldType of section 3.6.1. */
function isSubtype(own: TypeNode, wanted: TypeNode, types: Types): boolean {
  if (own.kind === Kind.NON_NULL_TYPE)
    return isSubtype(own.type, wanted.kind === Kind.NON_NULL_TYPE ? wanted.type : wanted, types);
  if (wanted.kind === Kind.NON_NULL_TYPE) return false;
  if (own.kind === Kind.LIST_TYPE || wanted.kind === Kind.LIST_TYPE)
    return own.kind === Kind.LIST_TYPE && wanted.kind === Kind.LIST_TYPE && isSubtype(own.type, wanted.type, types);
  if (own.name.value === wanted.name.value) return true;
  const type = types.get(own.name.value);
  const abstract = types.get(wanted.name.value);
  return (
    abstract?.members.some((each) => each.name.value === own.name.value) === true ||
    type?.interfaces.some((each) => each.name.value === wanted.name.value) === true
  );
}

function soundRoots(merged: MergedSchema, types: Types, setAside: SetAside[]): Map<OperationTypeNode, NamedTypeNode> {
  const roots = new Map<OperationTypeNode, NamedTypeNode>();
  for (const [operation, node] of merged.roots) {
    const type = types.get(node.name.value);
    const taken = [...roots].find(([, other]) => other.name.value === node.name.value);
    if (type?.kind === "object" && !taken) roots.set(operation, node);
    else if (taken)
      setAside.push(aside(`every ${operation}`, `\`${node.name.value}\` is the ${taken[0]} type already`, node));
    else if (!type)
      setAside.push(
        aside(`every ${operation}`, `the schema names \`${node.name.value}\`, and there is no such type`, node),
      );
    else
      setAside.push(
        aside(`every ${operation}`, `\`${node.name.value}\` is ${article(type.kind)}, not an object`, node),
      );
  }
  return roots;
}

function definitionsOf(
  merged: MergedSchema,
  types: Types,
  roots: ReadonlyMap<OperationTypeNode, NamedTypeNode>,
): DefinitionNode[] {
  const directives = merged.directives.filter((directive) =>
    (directive.arguments ?? []).every((argument) => whyNoInput(argument.type, types) === undefined),
  );
  const operationTypes = [...roots].map(([operation, type]) => ({
    kind: Kind.OPERATION_TYPE_DEFINITION as const,
    operation,
    type,
  }));
  const schema: DefinitionNode[] =
    merged.roots.size === 0
      ? []
      : [
          {
            kind: Kind.SCHEMA_DEFINITION,
            operationTypes,
            ...(merged.description ? { description: merged.description } : {}),
          },
        ];
  return [
    ...schema,
    ...directives.map((directive) => ({
      ...directive,
      arguments: (directive.arguments ?? []).map((argument) => ({ ...argument, directives: [] })),
    })),
    ...[...types.values()].map(definitionOf),
  ];
}

const definitionKinds = {
  scalar: Kind.SCALAR_TYPE_DEFINITION,
  object: Kind.OBJECT_TYPE_DEFINITION,
  interface: Kind.INTERFACE_TYPE_DEFINITION,
  union: Kind.UNION_TYPE_DEFINITION,
  enum: Kind.ENUM_TYPE_DEFINITION,
  input: Kind.INPUT_OBJECT_TYPE_DEFINITION,
} as const;

function definitionOf(type: MergedType): DefinitionNode {
  const { kind, name, description, directives, interfaces, fields, inputs, values, members } = type;
  const base = { kind: definitionKinds[kind], name, description, directives };
  switch (kind) {
    case "object":
    case "interface":
      return { ...base, interfaces, fields } as DefinitionNode;
    case "input":
      return { ...base, fields: inputs } as DefinitionNode;
    case "enum":
      return { ...base, values } as DefinitionNode;
    case "union":
      return { ...base, types: members } as DefinitionNode;
    case "scalar":
      return base as DefinitionNode;
  }
}

function kept<T>(list: readonly T[], keep: (each: T, at: number) => T | undefined): readonly T[] {
  const result = list.map(keep);
  return result.every((each, at) => each === list[at]) ? list : result.filter((each) => each !== undefined);
}

function namedOf(type: TypeNode): string {
  return type.kind === Kind.NAMED_TYPE ? type.name.value : namedOf(type.type);
}

function spelled(type: TypeNode): string {
  if (type.kind === Kind.NON_NULL_TYPE) return `${spelled(type.type)}!`;
  return type.kind === Kind.LIST_TYPE ? `[${spelled(type.type)}]` : type.name.value;
}
