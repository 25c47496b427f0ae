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

/** Returns names for a sentence: the first ones, and the number of the others. */
export function quoted(names: readonly string[]): string {
  return listed(
    names.map((name) => `\`${name}\``),
    mostNamed,
  );
}

/**
 * Returns a suggestion: the closest known names, or all of them.
 *
 * @param written the name of the user
 */
export function instead(written: string, known: readonly string[]): string | undefined {
  return didYouMean(written, known) ?? (known.length === 0 ? undefined : `There is ${quoted(known)}.`);
}

/** Returns the values of an enum, by its name; an empty list for anything else. */
export function valuesOf(schema: GraphQLSchema, name: string): string[] {
  const type = schema.getType(name);
  return isEnumType(type) ? type.getValues().map((each) => each.name) : [];
}

/** Returns the fields of an object, interface or input; an empty list for anything else. */
export function fieldsOf(type: GraphQLNamedType | undefined): string[] {
  return type && "getFields" in type ? Object.keys(type.getFields()) : [];
}

/** Returns the arguments of a type's field. */
export function argumentsOf(type: GraphQLNamedType | undefined, field: string): string[] {
  if (!isCompositeType(type) || !("getFields" in type) || isInputObjectType(type)) return [];
  return (type.getFields()[field]?.args ?? []).map(({ name }) => name);
}

/** Returns the possible type conditions of a fragment inside a type, in words. */
export function conditions(schema: GraphQLSchema, name: string): string {
  const type = schema.getType(name);
  if (!isCompositeType(type)) return `\`${name}\``;
  const possible = isAbstractType(type) ? schema.getPossibleTypes(type) : [type];
  const own = isUnionType(type) ? [] : [name];
  const names = [...own, ...possible.map((each) => each.name)];
  const interfaces = possible.flatMap((each) => each.getInterfaces().map((one) => one.name));
  return quoted([...new Set([...names, ...interfaces])]);
}
