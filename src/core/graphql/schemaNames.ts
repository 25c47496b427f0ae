import {
  isAbstractType,
  isCompositeType,
  isEnumType,
  isInputObjectType,
  isUnionType,
  type GraphQLNamedType,
  type GraphQLSchema,
} from "graphql";
import { listed } from "../text/listed.js";
import { didYouMean } from "../text/nearest.js";

const mostNamed = 10;

/** Names in a sentence; of many the first, and how many more there are. */
export function quoted(names: readonly string[]): string {
  return listed(
    names.map((name) => `\`${name}\``),
    mostNamed,
  );
}

/** The nearest of the known names, or all of them. */
export function instead(written: string, known: readonly string[]): string | undefined {
  return didYouMean(written, known) ?? (known.length === 0 ? undefined : `There is ${quoted(known)}.`);
}

/** The values of an enum, by its name. */
export function valuesOf(schema: GraphQLSchema, name: string): string[] {
  const type = schema.getType(name);
  return isEnumType(type) ? type.getValues().map((each) => each.name) : [];
}

/** The fields of an object, interface or input; of anything else none. */
export function fieldsOf(type: GraphQLNamedType | undefined): string[] {
  return type && "getFields" in type ? Object.keys(type.getFields()) : [];
}

/** The arguments that a field of a type takes. */
export function argumentsOf(type: GraphQLNamedType | undefined, field: string): string[] {
  if (!isCompositeType(type) || !("getFields" in type) || isInputObjectType(type)) return [];
  return (type.getFields()[field]?.args ?? []).map(({ name }) => name);
}

/** The types that a fragment can be on inside a type. */
export function conditions(schema: GraphQLSchema, name: string): string {
  const type = schema.getType(name);
  if (!isCompositeType(type)) return `\`${name}\``;
  const possible = isAbstractType(type) ? schema.getPossibleTypes(type) : [type];
  const own = isUnionType(type) ? [] : [name];
  const names = [...own, ...possible.map((each) => each.name)];
  const interfaces = possible.flatMap((each) => each.getInterfaces().map((one) => one.name));
  return quoted([...new Set([...names, ...interfaces])]);
}
