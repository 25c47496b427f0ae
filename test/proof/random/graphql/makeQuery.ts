import {
  getNamedType,
  isAbstractType,
  isCompositeType,
  isEnumType,
  isInputObjectType,
  isListType,
  isNonNullType,
  isObjectType,
  isRequiredArgument,
  isRequiredInputField,
  isUnionType,
  type GraphQLCompositeType,
  type GraphQLField,
  type GraphQLInputType,
  type GraphQLNamedType,
  type GraphQLSchema,
} from "graphql";
import type { Randomness } from "../randomness.js";

/** A query as text, with valid variables. */
export interface MadeQuery {
  readonly text: string;
  readonly variables: Readonly<Record<string, unknown>>;
  /** The names of the required variables. */
  readonly needed: readonly string[];
}

interface Making {
  readonly random: Randomness;
  readonly schema: GraphQLSchema;
  readonly name: string;
  readonly fragments: string[];
  readonly declared: string[];
  readonly variables: Record<string, unknown>;
  readonly needed: string[];
  fields: number;
  /** Whether fields may depend on variables. */
  readonly hasConditions: boolean;
}

const mostFields = 40;

/** Returns a random query, usually a valid one: aliases, merged selections, all kinds of fragments, conditions. */
export function makeQuery(schema: GraphQLSchema, random: Randomness, name: string): MadeQuery {
  const kind = random.chance(0.15) ? random.hit("mutation", "mutation") : "query";
  const root = kind === "query" ? schema.getQueryType() : schema.getMutationType();
  if (!root) throw new Error("A random schema has both roots.");
  const making: Making = {
    random,
    schema,
    name,
    fragments: [],
    declared: [],
    variables: {},
    needed: [],
    fields: 0,
    hasConditions: random.chance(0.6),
  };
  const selection = makeSelection(root, 4, making);
  const declared = making.declared.length > 0 ? `(${making.declared.join(", ")})` : "";
  const text = [`${kind} ${name}${declared} ${selection}`, ...making.fragments].join("\n");
  return { text, variables: making.variables, needed: making.needed };
}

function makeSelection(type: GraphQLCompositeType, depth: number, making: Making): string {
  const { random } = making;
  const parts: string[] = [];
  const count = 1 + random.below(3);
  for (let at = 0; at < count; at++) parts.push(...makePart(type, depth, making));
  if (parts.length === 0 || random.chance(0.1)) parts.push(random.hit("__typename selected", "__typename"));
  return `{ ${parts.join(" ")} }`;
}

function makePart(type: GraphQLCompositeType, depth: number, making: Making): string[] {
  const { random, schema } = making;
  const roll = random.next();
  if (!isUnionType(type) && roll < 0.55) return makeField(type, depth, making);
  if (depth <= 0) return [];
  const inner = isAbstractType(type) ? random.pick(insideOf(type, schema)) : random.pick(around(type, schema));
  const selected = makeSelection(inner, depth - 1, making);
  const told = `${isAbstractType(type) ? "abstract" : "object"} in ${isAbstractType(inner) ? "abstract" : "object"}`;
  const direct = directive(making);
  if (inner === type && random.chance(0.4))
    return [random.hit("inline fragment without a type", `...${direct} ${selected}`)];
  if (roll < 0.8) return [random.hit(`inline fragment: ${told}`, `... on ${inner.name}${direct} ${selected}`)];
  const fragment = `${making.name}F${String(making.fragments.length)}`;
  making.fragments.push(`fragment ${fragment} on ${inner.name} ${selected}`);
  const spread = random.hit(`named fragment: ${told}`, `...${fragment}${direct}`);
  return random.chance(0.15) ? [spread, random.hit("a fragment spread twice", `...${fragment}`)] : [spread];
}

/** The object types of an abstract type, and abstract types that share some. */
function insideOf(type: GraphQLNamedType, schema: GraphQLSchema): GraphQLCompositeType[] {
  if (!isAbstractType(type)) return [];
  const possible = schema.getPossibleTypes(type);
  const overlapping = Object.values(schema.getTypeMap()).filter(
    (each) => isAbstractType(each) && schema.getPossibleTypes(each).some((one) => possible.includes(one)),
  );
  return [...possible, ...possible, ...(overlapping as GraphQLCompositeType[])];
}

/** The type itself, and its abstract types. */
function around(type: GraphQLCompositeType, schema: GraphQLSchema): GraphQLCompositeType[] {
  const wider = Object.values(schema.getTypeMap()).filter(
    (each) => isAbstractType(each) && isObjectType(type) && schema.isSubType(each, type),
  );
  return [type, ...(wider as GraphQLCompositeType[])];
}

function makeField(type: GraphQLCompositeType, depth: number, making: Making): string[] {
  const { random } = making;
  if (isUnionType(type) || ++making.fields > mostFields) return [];
  const all = Object.values(type.getFields());
  const leaves = all.filter((each) => !isCompositeType(getNamedType(each.type)));
  const pool = depth <= 0 ? leaves : all;
  if (pool.length === 0) return [];
  const field = random.pick(pool);
  // A name for each field of each type avoids most conflicts.
  const alias = random.chance(0.25)
    ? random.hit("alias", `${type.name.toLowerCase()}_${field.name}_${String(making.fields)}: `)
    : "";
  const inner = getNamedType(field.type);
  const given = makeArguments(field, making);
  const one = (): string => {
    const selected = isCompositeType(inner) ? ` ${makeSelection(inner, depth - 1, making)}` : "";
    return `${alias}${field.name}${given}${directive(making)}${selected}`;
  };
  return isCompositeType(inner) && random.chance(0.2) ? [one(), random.hit("merged selections", one())] : [one()];
}

function directive(making: Making): string {
  const { random } = making;
  if (random.chance(0.8)) return "";
  if (random.chance(0.15))
    return random.hit("constant condition", ` @${random.pick(["include", "skip"])}(if: ${String(random.chance(0.5))})`);
  if (!making.hasConditions) return "";
  const name = random.pick(["c1", "c2"]);
  if (!(name in making.variables)) {
    making.declared.push(`$${name}: Boolean!`);
    making.needed.push(name);
    making.variables[name] = random.chance(0.5);
  }
  const one = random.hit("include", ` @include(if: $${name})`);
  const other = random.hit("skip", ` @skip(if: $${name})`);
  if (random.chance(0.1))
    return random.hit("include and skip", one + ` @skip(if: ${random.chance(0.5) ? "false" : `$${name}`})`);
  return random.chance(0.5) ? one : other;
}

function makeArguments(field: GraphQLField<unknown, unknown>, making: Making): string {
  const { random } = making;
  const given = field.args.flatMap((argument) => {
    if (!isRequiredArgument(argument) && random.chance(0.5)) return [];
    if (random.chance(0.4)) return [`${argument.name}: ${literalOf(argument.type, making, 1)}`];
    const variable = `v${String(making.declared.length)}`;
    const type = String(argument.type);
    const isNeeded = isNonNullType(argument.type);
    const hasDefault = isNeeded && type === "String!" && random.chance(0.5);
    making.declared.push(`$${variable}: ${type}${hasDefault ? random.hit("variable with a default", ' = "d"') : ""}`);
    random.hit(`variable of ${String(getNamedType(argument.type))}`, 0);
    if (isNeeded && !hasDefault) making.needed.push(variable);
    if ((isNeeded && !hasDefault) || random.chance(0.7)) making.variables[variable] = valueOf(argument.type, making, 2);
    return [`${argument.name}: $${variable}`];
  });
  return given.length > 0 ? `(${given.join(", ")})` : "";
}

/** A value as an app would give it. */
function valueOf(type: GraphQLInputType, making: Making, depth: number): unknown {
  const { random } = making;
  if (isNonNullType(type)) return valueOf(type.ofType, making, depth);
  if (isListType(type)) return Array.from({ length: random.below(3) }, () => present(type.ofType, making, depth));
  if (isEnumType(type)) return random.pick(type.getValues()).name;
  if (isInputObjectType(type)) {
    const fields = Object.values(type.getFields());
    if (type.isOneOf) {
      const chosen = random.pick(fields);
      return random.hit("one-of value", { [chosen.name]: valueOf(chosen.type, making, depth - 1) });
    }
    const entries = fields.flatMap((each): [string, unknown][] => {
      if (isRequiredInputField(each)) return [[each.name, valueOf(each.type, making, depth - 1)]];
      if (depth <= 0 || random.chance(0.6)) return [];
      return [
        [
          each.name,
          !isNonNullType(each.type) && random.chance(0.2)
            ? random.hit("null given", null)
            : valueOf(each.type, making, depth - 1),
        ],
      ];
    });
    return Object.fromEntries(entries);
  }
  return { String: "te`xt", Int: 7, Float: 1.5, Boolean: true, ID: "id1", Stamp: "2026", Loose: { any: [1] } }[
    type.name
  ];
}

function present(type: GraphQLInputType, making: Making, depth: number): unknown {
  return valueOf(type, making, depth - 1);
}

function literalOf(type: GraphQLInputType, making: Making, depth: number): string {
  return printed(valueOf(type, making, depth), type);
}

function printed(value: unknown, type: GraphQLInputType): string {
  const named = getNamedType(type);
  if (value === null) return "null";
  if (Array.isArray(value)) return `[${value.map((each) => printed(each, type)).join(", ")}]`;
  if (isEnumType(named)) return value as string;
  if (typeof value !== "object") return JSON.stringify(value);
  const fields = isInputObjectType(named) ? named.getFields() : {};
  const rows = Object.entries(value).map(([name, each]) => {
    const field = fields[name];
    return `${name}: ${field ? printed(each, field.type) : JSON.stringify(each)}`;
  });
  return `{ ${rows.join(", ")} }`;
}
