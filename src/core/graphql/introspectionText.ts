import {
  Kind,
  OperationTypeNode,
  parseValue,
  print,
  type ConstDirectiveNode,
  type ConstValueNode,
  type DefinitionNode,
  type DirectiveDefinitionNode,
  type EnumValueDefinitionNode,
  type FieldDefinitionNode,
  type InputValueDefinitionNode,
  type NamedTypeNode,
  type NameNode,
  type StringValueNode,
  type TypeNode,
} from "graphql";

/** An introspection result. Nothing in it is certain, because it comes from a server. */
type Loose = Readonly<Record<string, unknown>>;

/**
 * Returns the `__schema` of an introspection result, with or without its `data` wrapper; undefined for anything else.
 */
export function introspectedSchema(data: unknown): Loose | undefined {
  const root = isRecord(data) ? data : {};
  const inner = isRecord(root["data"]) ? root["data"] : root;
  const schema = inner["__schema"];
  return isRecord(schema) && Array.isArray(schema["types"]) ? schema : undefined;
}

/**
 * Returns an introspection result as schema text, with descriptions, deprecations, defaults, one-of inputs and the
 * addresses of scalars (GraphQL specification, section 4). The parts of every GraphQL schema are left out. The text
 * comes from the result alone, so that an invalid schema becomes text too and is validated like any other.
 *
 * @param schema the `__schema` of the result
 */
export function introspectionText(schema: Loose): string {
  const types = records(schema["types"]).filter((type) => !isBuiltIn(nameOf(type)));
  const definitions: DefinitionNode[] = [
    ...schemaDefinition(schema),
    ...records(schema["directives"]).flatMap(directiveDefinition),
    ...types.flatMap(typeDefinition),
  ];
  return `${definitions.map((node) => print(node)).join("\n\n")}\n`;
}

const standardNames = { queryType: "Query", mutationType: "Mutation", subscriptionType: "Subscription" } as const;
const rootNames = {
  queryType: OperationTypeNode.QUERY,
  mutationType: OperationTypeNode.MUTATION,
  subscriptionType: OperationTypeNode.SUBSCRIPTION,
} as const;

/** If one root has another name, the definition must list the others too. */
function schemaDefinition(schema: Loose): DefinitionNode[] {
  const roots = (["queryType", "mutationType", "subscriptionType"] as const).flatMap((key) => {
    const root = schema[key];
    const type = isRecord(root) ? nameOf(root) : "";
    return isName(type) ? [{ key, type }] : [];
  });
  const types = new Set(records(schema["types"]).map(nameOf));
  const isStandard =
    roots.every(({ key, type }) => standardNames[key] === type) &&
    Object.entries(standardNames).every(([key, name]) => !types.has(name) || roots.some((root) => root.key === key));
  if (roots.length === 0 || (isStandard && typeof schema["description"] !== "string")) return [];
  return [
    {
      kind: Kind.SCHEMA_DEFINITION,
      ...described(schema),
      operationTypes: roots.map(({ key, type }) => ({
        kind: Kind.OPERATION_TYPE_DEFINITION,
        operation: rootNames[key],
        type: namedType(type),
      })),
    },
  ];
}

const specifiedDirectives = new Set(["include", "skip", "deprecated", "specifiedBy", "oneOf"]);

function directiveDefinition(directive: Loose): DirectiveDefinitionNode[] {
  const name = nameOf(directive);
  const locations = Array.isArray(directive["locations"]) ? directive["locations"].filter(isName) : [];
  if (!isName(name) || specifiedDirectives.has(name) || locations.length === 0) return [];
  return [
    {
      kind: Kind.DIRECTIVE_DEFINITION,
      ...described(directive),
      name: nameNode(name),
      arguments: records(directive["args"]).flatMap(inputValue),
      repeatable: directive["isRepeatable"] === true,
      locations: locations.map(nameNode),
    },
  ];
}

function typeDefinition(type: Loose): DefinitionNode[] {
  const name = nameOf(type);
  if (!isName(name)) return [];
  const own = { ...described(type), name: nameNode(name) };
  const interfaces = records(type["interfaces"]).map(nameOf).filter(isName).map(namedType);
  switch (type["kind"]) {
    case "SCALAR": {
      const url = type["specifiedByURL"] ?? type["specifiedByUrl"];
      const directives = typeof url === "string" ? [directive("specifiedBy", "url", url)] : [];
      return [{ kind: Kind.SCALAR_TYPE_DEFINITION, ...own, directives }];
    }
    case "OBJECT":
    case "INTERFACE": {
      const kind = type["kind"] === "OBJECT" ? Kind.OBJECT_TYPE_DEFINITION : Kind.INTERFACE_TYPE_DEFINITION;
      return [{ kind, ...own, interfaces, fields: records(type["fields"]).flatMap(field) }];
    }
    case "UNION": {
      const types = records(type["possibleTypes"]).map(nameOf).filter(isName).map(namedType);
      return [{ kind: Kind.UNION_TYPE_DEFINITION, ...own, types }];
    }
    case "ENUM":
      return [{ kind: Kind.ENUM_TYPE_DEFINITION, ...own, values: records(type["enumValues"]).flatMap(enumValue) }];
    case "INPUT_OBJECT": {
      const directives = type["isOneOf"] === true ? [directive("oneOf")] : [];
      const fields = records(type["inputFields"]).flatMap(inputValue);
      return [{ kind: Kind.INPUT_OBJECT_TYPE_DEFINITION, ...own, directives, fields }];
    }
    default:
      return [];
  }
}

function field(node: Loose): FieldDefinitionNode[] {
  const type = typeNode(node["type"]);
  const name = nameOf(node);
  if (!type || !isName(name)) return [];
  const args = records(node["args"]).flatMap(inputValue);
  const own = { ...described(node), name: nameNode(name), directives: deprecation(node) };
  return [{ kind: Kind.FIELD_DEFINITION, ...own, arguments: args, type }];
}

function inputValue(node: Loose): InputValueDefinitionNode[] {
  const type = typeNode(node["type"]);
  const name = nameOf(node);
  if (!type || !isName(name)) return [];
  const defaultValue = constant(node["defaultValue"]);
  return [
    {
      kind: Kind.INPUT_VALUE_DEFINITION,
      ...described(node),
      name: nameNode(name),
      type,
      ...(defaultValue ? { defaultValue } : {}),
      directives: deprecation(node),
    },
  ];
}

function enumValue(node: Loose): EnumValueDefinitionNode[] {
  const name = nameOf(node);
  if (!isName(name) || ["true", "false", "null"].includes(name)) return [];
  const own = { ...described(node), name: nameNode(name), directives: deprecation(node) };
  return [{ kind: Kind.ENUM_VALUE_DEFINITION, ...own }];
}

/** A default is sent as GraphQL text. Some servers send an invalid one, which counts as no default. */
function constant(text: unknown): ConstValueNode | undefined {
  if (typeof text !== "string") return undefined;
  try {
    return parseValue(text, { noLocation: true }) as ConstValueNode;
  } catch {
    return undefined;
  }
}

/** More wrappers than any type has. A response that nests them without end must not exhaust the stack. */
const mostWrappers = 50;

function typeNode(node: unknown, depth = 0): TypeNode | undefined {
  if (!isRecord(node) || depth > mostWrappers) return undefined;
  if (node["kind"] === "NON_NULL") {
    const inner = typeNode(node["ofType"], depth + 1);
    return inner && inner.kind !== Kind.NON_NULL_TYPE ? { kind: Kind.NON_NULL_TYPE, type: inner } : inner;
  }
  if (node["kind"] === "LIST") {
    const inner = typeNode(node["ofType"], depth + 1);
    return inner && { kind: Kind.LIST_TYPE, type: inner };
  }
  const name = nameOf(node);
  return isName(name) ? namedType(name) : undefined;
}

function deprecation(node: Loose): ConstDirectiveNode[] {
  if (node["isDeprecated"] !== true) return [];
  const reason = node["deprecationReason"];
  return [
    typeof reason === "string" && reason !== "No longer supported"
      ? directive("deprecated", "reason", reason)
      : directive("deprecated"),
  ];
}

function directive(name: string, argument?: string, value?: string): ConstDirectiveNode {
  if (argument === undefined || value === undefined) return { kind: Kind.DIRECTIVE, name: nameNode(name) };
  const given = { kind: Kind.ARGUMENT, name: nameNode(argument), value: { kind: Kind.STRING, value } } as const;
  return { kind: Kind.DIRECTIVE, name: nameNode(name), arguments: [given] };
}

function described(node: Loose): { description?: StringValueNode } {
  const text = node["description"];
  if (typeof text !== "string" || text.trim() === "") return {};
  // A block string keeps neither white space at its ends nor every character. The words are what counts.
  const value = text.replace(/\r\n?/g, "\n").trim();

  const isBlock = !/[\u0000-\u0008\u000B\u000C\u000E-\u001F]/.test(value);
  return { description: { kind: Kind.STRING, value, block: isBlock } };
}

function namedType(name: string): NamedTypeNode {
  return { kind: Kind.NAMED_TYPE, name: nameNode(name) };
}

function nameNode(value: string): NameNode {
  return { kind: Kind.NAME, value };
}

function nameOf(node: Loose): string {
  return typeof node["name"] === "string" ? node["name"] : "";
}

/** Any other value would give a text that cannot be read again, or has another meaning. */
function isName(value: unknown): value is string {
  return typeof value === "string" && /^[_A-Za-z][_0-9A-Za-z]*$/.test(value);
}

function isBuiltIn(name: string): boolean {
  return name.startsWith("__") || ["String", "Int", "Float", "Boolean", "ID"].includes(name);
}

function records(value: unknown): Loose[] {
  return Array.isArray(value) ? value.filter(isRecord) : [];
}

function isRecord(value: unknown): value is Loose {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
