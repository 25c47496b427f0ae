import { memberOf } from "../use/coordinate.js";
import {
  concatAST,
  DirectiveLocation,
  isEnumType,
  isInputObjectType,
  isInterfaceType,
  isIntrospectionType,
  isListType,
  isNonNullType,
  isObjectType,
  isScalarType,
  isSpecifiedDirective,
  isSpecifiedScalarType,
  isUnionType,
  type DocumentNode,
  type GraphQLNamedType,
  type GraphQLSchema,
  type GraphQLType,
} from "graphql";
import type {
  Field,
  GraphqlContract,
  GraphqlDirective,
  GraphqlField,
  GraphqlRoot,
  Reference,
  Shape,
  TypeDefinition,
} from "../contract/model.js";
import type { Place, SourceText } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import { sortedBy } from "../text/sortedBy.js";
import { placeOfNode } from "./graphqlPlace.js";
import { parseText } from "./parseText.js";
import { schemaTexts } from "./schemaTexts.js";
import { validSchema } from "./validSchema.js";

export interface GraphqlReading {
  /** Absent if the schema is not valid. */
  readonly contract?: GraphqlContract;
  /** The schema of the reference implementation, for validating and typing query documents. */
  readonly schema?: GraphQLSchema;
  readonly problems: readonly Problem[];
  /** The schema as texts in the schema definition language, whatever its source was. */
  readonly texts: readonly SourceText[];
  /** Texts that places refer to and that are not files: the text of an introspection result. */
  readonly derived: readonly SourceText[];
}

/**
 * Reads a GraphQL schema into the model. The sources are one or many texts in the schema definition language with their
 * extensions, or an introspection result. All syntax errors of all texts are reported. Invalid parts of a schema are
 * skipped, and the rest is read.
 *
 * @param name the contract's name in the configuration
 */
export function readGraphqlContract(name: string, sources: readonly SourceText[]): GraphqlReading {
  const found = sources.map(schemaTexts);
  const problems: Problem[] = found.flatMap((each) => each.problems);
  const texts = found.flatMap((each) => each.texts);
  const documents: DocumentNode[] = [];
  for (const { document, text } of texts) {
    if (text.replace(/#[^\n]*/g, "").trim() === "") continue;
    const parsed = parseText({ document, text });
    if (parsed.ok) documents.push(parsed.document);
    else {
      const message = `The schema text cannot be read: ${sentence(parsed.message)}`;
      problems.push(problem("contract.syntax", message, { places: parsed.places }));
    }
  }
  const derived = found.flatMap((each) => each.derived);
  if (problems.length > 0) return { problems, texts: [], derived };
  const { schema, setAside, repeated } = validSchema(concatAST(documents).definitions);
  const notes = repeated.map(({ first, again }) =>
    problem("graphql.schema", `\`${first.name.value}\` is defined more than once.`, {
      level: "warning",
      places: [placeOfNode(again), placeOfNode(first)],
      why: "The definitions are merged, as if the later ones were extensions.",
      hint: "Write `extend` before the later ones.",
    }),
  );
  const contract = { ...toModel(name, schema), setAside };
  if (contract.types.size === 0) {
    const reasons = setAside
      .slice(0, mostReasons)
      .map(({ what, why, place }) =>
        problem("graphql.schema", `No part of the schema can be used: \`${what}\`, because ${why}.`, { place }),
      );
    const empty = problem("graphql.schema", "The schema defines no type.", { places: [] });
    return { problems: reasons.length > 0 ? reasons : [empty], texts: [], derived };
  }
  return { contract, schema, problems: notes, texts, derived };
}

const mostReasons = 5;

/** Returns the reference implementation's message as a sentence of ours. */
export function sentence(message: string): string {
  const text = message.replace(/^Syntax Error: /, "").trim();
  return text.endsWith(".") || text.endsWith("?") ? text : `${text}.`;
}

function toModel(name: string, schema: GraphQLSchema): GraphqlContract {
  const fields = new Map<string, GraphqlField>();
  const types = new Map<string, TypeDefinition>();
  for (const type of sortedBy(Object.values(schema.getTypeMap()), (each) => each.name)) {
    if (isIntrospectionType(type) || isSpecifiedScalarType(type)) continue;
    types.set(type.name, toDefinition(type));
    for (const field of fieldsOf(type)) fields.set(field.coordinate, field);
  }
  const roots: Partial<Record<GraphqlRoot, string>> = {};
  for (const [root, type] of [
    ["query", schema.getQueryType()],
    ["mutation", schema.getMutationType()],
    ["subscription", schema.getSubscriptionType()],
  ] as const) {
    if (type) roots[root] = type.name;
  }
  return {
    protocol: "graphql",
    name,
    title: name,
    version: "",
    types,
    fields,
    roots,
    directives: directivesOf(schema),
    setAside: [],
  };
}

const usableInDocuments: ReadonlySet<string> = new Set([
  DirectiveLocation.QUERY,
  DirectiveLocation.MUTATION,
  DirectiveLocation.SUBSCRIPTION,
  DirectiveLocation.FIELD,
  DirectiveLocation.FRAGMENT_DEFINITION,
  DirectiveLocation.FRAGMENT_SPREAD,
  DirectiveLocation.INLINE_FRAGMENT,
  DirectiveLocation.VARIABLE_DEFINITION,
]);

function directivesOf(schema: GraphQLSchema): Map<string, GraphqlDirective> {
  const usable = schema
    .getDirectives()
    .filter(
      (directive) =>
        !isSpecifiedDirective(directive) && directive.locations.some((each) => usableInDocuments.has(each)),
    );
  return new Map(
    sortedBy(usable, (each) => each.name).map((directive) => [
      directive.name,
      { name: directive.name, arguments: directive.args.map(toInputField), place: placeOf(directive) },
    ]),
  );
}

function toDefinition(type: GraphQLNamedType): TypeDefinition {
  const description = type.description?.trim();
  return {
    key: type.name,
    name: type.name,
    nullable: false,
    ...shapeAndRole(type),
    ...(isObjectType(type) || isInterfaceType(type)
      ? {
          implements: type
            .getInterfaces()
            .map((each) => each.name)
            .sort(),
        }
      : {}),
    ...(description ? { description } : {}),
    place: placeOf(type),
  };
}

function shapeAndRole(
  type: GraphQLNamedType,
): Pick<TypeDefinition, "role" | "shape"> & { shape: Shape; role: NonNullable<TypeDefinition["role"]> } {
  if (isObjectType(type) || isInterfaceType(type)) {
    const fields = Object.values(type.getFields()).map((field) => toField(field, placeOf(field)));
    return { role: isObjectType(type) ? "object" : "interface", shape: { kind: "record", fields } };
  }
  if (isUnionType(type)) {
    const members = type
      .getTypes()
      .map((each): Reference => ({ shape: { kind: "named", key: each.name }, nullable: false }));
    return { role: "union", shape: { kind: "union", members } };
  }
  if (isEnumType(type)) {
    const values = type.getValues().map((value) => ({ value: value.name, ...wordsOf(value) }));
    return { role: "enum", shape: { kind: "choice", values } };
  }
  if (isInputObjectType(type)) {
    const fields = Object.values(type.getFields()).map((field) => toInputField(field));
    return { role: "input", shape: { kind: "record", fields, closed: true, ...(type.isOneOf ? { oneOf: true } : {}) } };
  }
  return { role: "scalar", shape: { kind: "any", scalar: type.name } };
}

interface Described {
  readonly name: string;
  readonly type: GraphQLType;
  readonly description?: string | null | undefined;
  readonly deprecationReason?: string | null | undefined;
  readonly astNode?: { readonly kind: string } | null | undefined;
  readonly defaultValue?: unknown;
}

function toField(field: Described, place: Place): Field {
  return { name: field.name, type: toReference(field.type), required: true, ...wordsOf(field), place };
}

/** Converts an argument or input field. It may be absent if it can be null or has a default. */
export function toInputField(field: Described): Field {
  const optional = !isNonNullType(field.type) || field.defaultValue !== undefined;
  return {
    ...toField(field, placeOf(field)),
    required: !optional,
    ...(field.defaultValue === undefined ? {} : { default: field.defaultValue }),
  };
}

function wordsOf(node: Pick<Described, "description" | "deprecationReason">): {
  description?: string;
  deprecated?: string;
} {
  const description = node.description?.trim();
  return {
    ...(description ? { description } : {}),
    ...(node.deprecationReason == null
      ? {}
      : { deprecated: node.deprecationReason === "No longer supported" ? "" : node.deprecationReason }),
  };
}

function placeOf(node: { readonly astNode?: unknown }): Place {
  const ast = node.astNode as Parameters<typeof placeOfNode>[0] | null | undefined;
  return ast ? placeOfNode(ast) : { document: "", offset: 0, length: 1 };
}

function fieldsOf(type: GraphQLNamedType): GraphqlField[] {
  if (isObjectType(type) || isInterfaceType(type)) {
    return Object.values(type.getFields()).map((field) => ({
      coordinate: memberOf(type.name, field.name),
      type: toReference(field.type),
      arguments: field.args.map((argument) => toInputField(argument)),
      ...(field.deprecationReason == null ? {} : { deprecated: field.deprecationReason }),
      place: placeOf(field),
    }));
  }
  if (isInputObjectType(type)) {
    return Object.values(type.getFields()).map((field) => ({
      coordinate: memberOf(type.name, field.name),
      type: toReference(field.type),
      arguments: [],
      place: placeOf(field),
    }));
  }
  return [];
}

/** Converts a GraphQL type to a reference. A type that is not wrapped in non-null may be null. */
export function toReference(type: GraphQLType): Reference {
  if (isNonNullType(type)) return { ...toReference(type.ofType), nullable: false };
  if (isListType(type)) return { shape: { kind: "list", item: toReference(type.ofType) }, nullable: true };
  return { shape: namedShape(type), nullable: true };
}

function namedShape(type: GraphQLNamedType): Shape {
  if (!isScalarType(type) || !isSpecifiedScalarType(type)) return { kind: "named", key: type.name };
  switch (type.name) {
    case "Int":
      return { kind: "integer", format: "int32" };
    case "Float":
      return { kind: "number" };
    case "Boolean":
      return { kind: "boolean" };
    case "ID":
      return { kind: "text", format: "id" };
    default:
      return { kind: "text" };
  }
}
