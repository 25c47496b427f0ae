import {
  getNamedType,
  isAbstractType,
  isInterfaceType,
  isLeafType,
  isObjectType,
  isRequiredArgument,
  type GraphQLField,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLSchema,
} from "graphql";
import { pascalCase } from "../../text/words.js";

export type RootKind = "query" | "mutation" | "subscription";

/** A query document for one root field. */
export interface Draft {
  readonly kind: RootKind;
  /** The root field. */
  readonly field: string;
  /** The operation's name. */
  readonly name: string;
  readonly text: string;
}

export interface DraftOptions {
  /** The number of levels of objects that are selected. Objects that only wrap a list do not count. */
  readonly depth: number;
  /** The root fields to draft, as "voyages" or "Query.voyages"; all if empty. */
  readonly fields: readonly string[];
}

const kinds: readonly RootKind[] = ["query", "mutation", "subscription"];

/** Returns every root field of a schema, in the schema's order. */
export function rootFields(schema: GraphQLSchema): { kind: RootKind; type: GraphQLObjectType; field: string }[] {
  return kinds.flatMap((kind) => {
    const type = rootType(schema, kind);
    return type ? Object.keys(type.getFields()).map((field) => ({ kind, type, field })) : [];
  });
}

function rootType(schema: GraphQLSchema, kind: RootKind): GraphQLObjectType | undefined {
  const types = {
    query: schema.getQueryType(),
    mutation: schema.getMutationType(),
    subscription: schema.getSubscriptionType(),
  };
  return types[kind] ?? undefined;
}

/**
 * Drafts query documents for root fields, with all arguments as variables, and all fields up to a depth. A type is not
 * selected again inside itself, so every document ends. Each document is valid against the schema.
 *
 * @returns the drafts in the schema's order
 */
export function draftDocuments(schema: GraphQLSchema, { depth, fields }: DraftOptions): Draft[] {
  const wanted = new Set(fields);
  const chosen = rootFields(schema).filter(
    ({ type, field }) => wanted.size === 0 || wanted.has(field) || wanted.has(`${type.name}.${field}`),
  );
  const taken = new Map<string, number>();
  for (const { field } of rootFields(schema)) taken.set(pascalCase(field), (taken.get(pascalCase(field)) ?? 0) + 1);
  return chosen.map(({ kind, type, field }) => {
    const plain = pascalCase(field) || "Draft";
    // Names must differ within a folder of documents, whatever their kind.
    const name = (taken.get(plain) ?? 0) > 1 ? `${plain}${pascalCase(kind)}` : plain;
    return { kind, field, name, text: new Drafting(schema, depth).draft(kind, name, { root: type, fieldName: field }) };
  });
}

/** The fields between a connection and its entities. */
const wrappers = new Set(["edges", "node", "nodes", "pageInfo"]);
const indent = "  ";

class Drafting {
  private readonly variables: string[] = [];
  private readonly names = new Set<string>();

  constructor(
    private readonly schema: GraphQLSchema,
    private readonly depth: number,
  ) {}

  draft(
    kind: RootKind,
    name: string,
    { root, fieldName }: { readonly root: GraphQLObjectType; readonly fieldName: string },
  ): string {
    const field = root.getFields()[fieldName];
    if (!field) throw new Error(`${root.name} has no ${fieldName}.`);
    const args = this.arguments(field, field.args, "");
    const body = this.selection(getNamedType(field.type), this.depth, {
      inside: new Set([root.name]),
      indentation: indent,
      path: fieldName,
    });
    const variables = this.variables.length > 0 ? `(${this.variables.join(", ")})` : "";
    return `${kind} ${name}${variables} {\n${indent}${field.name}${args}${body}\n}\n`;
  }

  /** The arguments as variables, "" if there are none. */
  private arguments(
    { name: fieldName }: GraphQLField<unknown, unknown>,
    chosen: GraphQLField<unknown, unknown>["args"],
    prefix: string,
  ): string {
    if (chosen.length === 0) return "";
    const passed = chosen.map((argument) => {
      const plain = prefix === "" ? argument.name : `${fieldName}${pascalCase(argument.name)}`;
      let name = plain;
      for (let more = 2; this.names.has(name); more++) name = `${plain}${String(more)}`;
      this.names.add(name);
      this.variables.push(`$${name}: ${String(argument.type)}`);
      return `${argument.name}: $${name}`;
    });
    return `(${passed.join(", ")})`;
  }

  private selection(
    type: GraphQLNamedType,
    depth: number,
    {
      inside,
      indentation,
      path,
    }: { readonly inside: ReadonlySet<string>; readonly indentation: string; readonly path: string },
  ): string {
    if (isLeafType(type)) return "";
    const around = new Set([...inside, type.name]);
    const lines = isAbstractType(type)
      ? this.abstractLines(type, depth, { inside: around, indentation: indentation + indent, path })
      : isObjectType(type)
        ? this.fieldLines(Object.values(type.getFields()), depth, {
            inside: around,
            indentation: indentation + indent,
            path,
            aliases: new Map(),
          })
        : [];
    const chosen = lines.length > 0 ? lines : [`${indentation}${indent}__typename`];
    return ` {\n${chosen.join("\n")}\n${indentation}}`;
  }

  private abstractLines(
    type: GraphQLNamedType,
    depth: number,
    {
      inside,
      indentation,
      path,
    }: { readonly inside: ReadonlySet<string>; readonly indentation: string; readonly path: string },
  ): string[] {
    const own = isInterfaceType(type) ? Object.values(type.getFields()) : [];
    const names = new Set(own.map(({ name }) => name));
    const common = isInterfaceType(type)
      ? this.fieldLines(own, depth, { inside, indentation, path, aliases: new Map() })
      : [];
    const possible = isAbstractType(type) ? [...this.schema.getPossibleTypes(type)] : [];
    // One response key has one type (GraphQL, section 5.3.2). Fields with different types get names of their own.
    const seen = new Map<string, string>();
    const parts = possible.flatMap((each) => {
      const fields = Object.values(each.getFields()).filter(({ name }) => !names.has(name));
      const aliases = new Map<string, string>();
      for (const { name, type: fieldType } of fields) {
        const known = seen.get(name);
        if (known === undefined) seen.set(name, String(fieldType));
        else if (known !== String(fieldType))
          aliases.set(name, `${each.name.charAt(0).toLowerCase()}${each.name.slice(1)}${pascalCase(name)}`);
      }
      const lines = this.fieldLines(fields, depth, {
        inside: new Set([...inside, each.name]),
        indentation: indentation + indent,
        path,
        aliases,
      });
      return lines.length > 0 ? [`${indentation}... on ${each.name} {`, ...lines, `${indentation}}`] : [];
    });
    return [`${indentation}__typename`, ...common, ...parts];
  }

  private fieldLines(
    fields: readonly GraphQLField<unknown, unknown>[],
    depth: number,
    {
      inside,
      indentation,
      path,
      aliases,
    }: {
      readonly inside: ReadonlySet<string>;
      readonly indentation: string;
      readonly path: string;
      readonly aliases: ReadonlyMap<string, string>;
    },
  ): string[] {
    return fields.flatMap((field) => {
      if (field.deprecationReason !== undefined && field.deprecationReason !== null) return [];
      const named = getNamedType(field.type);
      const isWrapper = wrappers.has(field.name) && !isLeafType(named);
      if (!isLeafType(named) && ((!isWrapper && depth <= 1) || this.isInside(named, inside))) return [];
      const alias = aliases.get(field.name);
      const args = this.arguments(field, field.args.filter(isRequiredArgument), path);
      const inner = this.selection(named, isWrapper ? depth : depth - 1, {
        inside,
        indentation,
        path: `${path}.${field.name}`,
      });
      return [`${indentation}${alias === undefined ? "" : `${alias}: `}${field.name}${args}${inner}`];
    });
  }

  /** Whether a type, or one of its possible types, is being selected already. */
  private isInside(type: GraphQLNamedType, inside: ReadonlySet<string>): boolean {
    if (inside.has(type.name)) return true;
    return isAbstractType(type) && this.schema.getPossibleTypes(type).some(({ name }) => inside.has(name));
  }
}
