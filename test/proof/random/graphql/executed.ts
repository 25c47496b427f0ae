import {
  execute,
  getNamedType,
  isAbstractType,
  isEnumType,
  isListType,
  isNonNullType,
  isObjectType,
  parse,
  type GraphQLOutputType,
  type GraphQLSchema,
} from "graphql";
import type { Randomness } from "../randomness.js";

/** A response of an executing server, with the places that must not be null, or that have a known type. */
export interface Executed {
  readonly data: unknown;
  readonly errors: readonly string[];
  readonly nonNull: readonly (readonly (string | number)[])[];
  readonly leaves: readonly (readonly (string | number)[])[];
}

/** Executes the requests of an SDK on a server with random responses within the schema. */
export function executed(
  schema: GraphQLSchema,
  text: string,
  variables: Readonly<Record<string, unknown>>,
  random: Randomness,
): Executed {
  const nonNull: (readonly (string | number)[])[] = [];
  const leaves: (readonly (string | number)[])[] = [];
  const valueOf = (type: GraphQLOutputType, path: readonly (string | number)[]): unknown => {
    if (isNonNullType(type)) {
      // A value of unknown type accepts null like anything else.
      if (!(getNamedType(type).name === "Loose" && !isListType(type.ofType))) nonNull.push(path);
      return inner(type.ofType as GraphQLOutputType, path);
    }
    if (random.chance(0.25)) return random.hit("null answered", null);
    return inner(type, path);
  };
  const inner = (type: GraphQLOutputType, path: readonly (string | number)[]): unknown => {
    if (isListType(type))
      return Array.from({ length: random.below(3) }, (_, at) =>
        valueOf(type.ofType as GraphQLOutputType, [...path, at]),
      );
    const named = getNamedType(type);
    if (isEnumType(named)) return leaf(path, random.pick(named.getValues()).name);
    if (isObjectType(named)) return {};
    if (isAbstractType(named)) {
      random.hit("abstract answered", 0);
      return { __typename: random.pick(schema.getPossibleTypes(named)).name };
    }
    if (named.name === "Loose") return random.pick([{ any: 1 }, "x", [1]]);
    return leaf(path, { String: "*/`${x}", Int: 3, Float: 2.5, Boolean: false, ID: "9", Stamp: "now" }[named.name]);
  };
  const leaf = (path: readonly (string | number)[], value: unknown): unknown => {
    leaves.push(path);
    return value;
  };
  const result = execute({
    schema,
    document: parse(text),
    variableValues: variables,
    rootValue: {},
    fieldResolver: (_source, _args, _context, info) => {
      const path: (string | number)[] = [];
      for (let at: typeof info.path | undefined = info.path; at; at = at.prev) path.unshift(at.key);
      const seen = nonNull.length;
      const value = valueOf(info.returnType, path);
      // Read through an interface that allows null, its null proves nothing.
      const { parentType, fieldName, returnType } = info;
      const isNarrower = parentType
        .getInterfaces()
        .some((each) => String(each.getFields()[fieldName]?.type ?? returnType) !== String(returnType));
      if (isNarrower) nonNull.splice(seen);
      return value;
    },
  });
  if (result instanceof Promise) throw new Error("Nothing here is asynchronous.");
  return {
    data: JSON.parse(JSON.stringify(result.data ?? null)) as unknown,
    errors: (result.errors ?? []).map((error) => error.message),
    nonNull,
    leaves,
  };
}
