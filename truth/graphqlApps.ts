import {
  execute,
  getNamedType,
  getNullableType,
  getVariableValues,
  isAbstractType,
  isCompositeType,
  isEnumType,
  isInputObjectType,
  isListType,
  isNonNullType,
  isObjectType,
  isScalarType,
  Kind,
  parse,
  typeFromAST,
  validate,
  type DocumentNode,
  type FragmentDefinitionNode,
  type GraphQLInputType,
  type GraphQLOutputType,
  type GraphQLSchema,
  type OperationDefinitionNode,
  type SelectionNode,
  type SelectionSetNode,
} from "graphql";
import type { QueryOperation } from "../src/core/graphql/documents/queryModel.js";
import { Randomness } from "../test/proof/random/randomness.js";

export interface Openness {
  readonly openUnions: boolean;
  readonly openChoices: boolean;
}

const tries = 48;

/**
 * Returns what released operations can no longer do with a server that has another schema: a request that is refused,
 * or a response that the old schema does not allow.
 */
export function brokenOperations(
  operations: readonly QueryOperation[],
  before: GraphQLSchema,
  after: GraphQLSchema,
  seed: number,
  openness: Openness = { openUnions: false, openChoices: false },
): string[] {
  return operations.flatMap((operation) => {
    const document = parse(operation.text);
    const [invalid] = validate(after, document);
    if (invalid) return [`${operation.name}: refused, ${invalid.message}`];
    for (let at = 0; at < tries; at++) {
      const random = new Randomness(seed * 1000 + at);
      const wrong = tried(operation, document, before, after, random, openness);
      if (wrong !== undefined) return [`${operation.name}: ${wrong}`];
    }
    return [];
  });
}

function tried(
  operation: QueryOperation,
  document: DocumentNode,
  before: GraphQLSchema,
  after: GraphQLSchema,
  random: Randomness,
  openness: Openness,
): string | undefined {
  const node = document.definitions.find(
    (each): each is OperationDefinitionNode => each.kind === Kind.OPERATION_DEFINITION,
  );
  if (!node) return undefined;
  const variables: Record<string, unknown> = {};
  for (const { variable, type, defaultValue } of node.variableDefinitions ?? []) {
    const declared = typeFromAST(before, type as never) as GraphQLInputType;
    const isOptional = !isNonNullType(declared) || defaultValue !== undefined;
    if (isOptional && random.chance(0.4)) continue;
    variables[variable.name.value] = sent(declared, random, 0);
  }
  const { errors } = getVariableValues(after, node.variableDefinitions ?? [], variables);
  if (errors?.[0]) return `refused, ${errors[0].message}`;
  const result = execute({
    schema: after,
    document,
    variableValues: variables,
    rootValue: {},
    fieldResolver: (_source, _args, _context, info) => answered(info.returnType, after, random),
  });
  if (result instanceof Promise) throw new Error("Nothing here is asynchronous.");
  if (result.errors?.[0]) return `failed, ${result.errors[0].message}`;
  const fragments = new Map(
    document.definitions
      .filter((each): each is FragmentDefinitionNode => each.kind === Kind.FRAGMENT_DEFINITION)
      .map((each) => [each.name.value, each]),
  );
  const root = before.getRootType(node.operation);
  const judge = new AnswerJudge(before, fragments, openness);
  return root ? judge.selected(result.data, root.name, [node.selectionSet], operation.name) : undefined;
}

/** A value that the old schema accepts. */
function sent(type: GraphQLInputType, random: Randomness, depth: number): unknown {
  if (isNonNullType(type)) return sent(type.ofType, random, depth);
  if (depth > 0 && random.chance(0.2)) return null;
  if (isListType(type)) {
    const item = type.ofType;
    const count = random.below(3);
    return Array.from({ length: count }, () => sentItem(item, random, depth + 1));
  }
  const named = getNullableType(type);
  if (isEnumType(named)) return random.pick(named.getValues()).name;
  if (isInputObjectType(named)) {
    const fields = Object.values(named.getFields());
    if (named.isOneOf) {
      const one = random.pick(fields);
      return { [one.name]: sentItem(getNullableType(one.type), random, 9) };
    }
    const chosen = fields.filter(
      (each) => (isNonNullType(each.type) && each.defaultValue === undefined) || (depth < 3 && random.chance(0.6)),
    );
    return Object.fromEntries(
      chosen.map((each) => [
        each.name,
        isNonNullType(each.type) ? sentItem(each.type, random, depth + 1) : sent(each.type, random, depth + 1),
      ]),
    );
  }
  return { Int: 3, Float: 2.5, Boolean: true }[String(named)] ?? "text";
}

function sentItem(type: GraphQLInputType, random: Randomness, depth: number): unknown {
  for (;;) {
    const value = sent(type, random, depth);
    if (value !== null || !isNonNullType(type)) {
      if (depth >= 9 && value === null) continue;
      return value;
    }
  }
}

/** A value that the new schema can return. */
function answered(type: GraphQLOutputType, schema: GraphQLSchema, random: Randomness): unknown {
  if (isNonNullType(type)) return inner(type.ofType as GraphQLOutputType, schema, random);
  return random.chance(0.25) ? null : inner(type, schema, random);
}

function inner(type: GraphQLOutputType, schema: GraphQLSchema, random: Randomness): unknown {
  if (isListType(type))
    return Array.from({ length: 1 + random.below(3) }, () =>
      answered(type.ofType as GraphQLOutputType, schema, random),
    );
  const named = getNamedType(type);
  if (isEnumType(named)) return random.pick(named.getValues()).name;
  if (isObjectType(named)) return {};
  if (isAbstractType(named)) return { __typename: random.pick(schema.getPossibleTypes(named)).name };
  return { Int: 3, Float: 2.5, Boolean: true, ID: "9" }[named.name] ?? "text";
}

/** Reads a response like the SDK of the old schema: promised values must be there. */
class AnswerJudge {
  constructor(
    private readonly schema: GraphQLSchema,
    private readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>,
    private readonly openness: Openness,
  ) {}

  selected(data: unknown, typeName: string, sets: readonly SelectionSetNode[], path: string): string | undefined {
    if (typeof data !== "object" || data === null) return `${path} is no record`;
    const declared = this.schema.getType(typeName);
    if (!isCompositeType(declared)) return undefined;
    const said = (data as Record<string, unknown>)["__typename"];
    const tells = sets.some((set) => this.tells(set));
    let runtime = isObjectType(declared) ? declared.name : undefined;
    if (isAbstractType(declared) && typeof said === "string") {
      const isKnown = this.schema.getPossibleTypes(declared).some(({ name }) => name === said);
      if (!isKnown) return tells && !this.openness.openUnions ? `${path} is a ${said}, which nobody knows` : undefined;
      runtime = said;
    } else if (isObjectType(declared) && typeof said === "string" && said !== declared.name) {
      return `${path}.__typename is ${said}`;
    }
    for (const [key, { node, sets: below }] of this.fields(sets, declared.name, runtime)) {
      const name = node;
      if (name === "__typename") continue;
      const owner = this.schema.getType(below.owner);
      const field = isCompositeType(owner) && "getFields" in owner ? owner.getFields()[name] : undefined;
      if (!field) continue;
      if (!(key in data)) {
        if (below.isSure) return `${path}.${key} is missing`;
        continue;
      }
      const wrong = this.value((data as Record<string, unknown>)[key], field.type, below.selections, `${path}.${key}`);
      if (wrong !== undefined) return wrong;
    }
    return undefined;
  }

  private value(
    value: unknown,
    type: GraphQLOutputType,
    sets: readonly SelectionSetNode[],
    path: string,
  ): string | undefined {
    if (isNonNullType(type))
      return value === null ? `${path} is null` : this.value(value, type.ofType as GraphQLOutputType, sets, path);
    if (value === null) return undefined;
    if (isListType(type)) {
      if (!Array.isArray(value)) return `${path} is no list`;
      for (const item of value) {
        const wrong = this.value(item, type.ofType, sets, `${path}[]`);
        if (wrong !== undefined) return wrong;
      }
      return undefined;
    }
    const named = getNamedType(type);
    if (isCompositeType(named)) return this.selected(value, named.name, sets, path);
    if (isEnumType(named)) {
      const isKnown = named.getValues().some(({ name }) => name === value);
      return isKnown || (this.openness.openChoices && typeof value === "string")
        ? undefined
        : `${path} is ${JSON.stringify(value)}`;
    }
    if (!isScalarType(named)) return undefined;
    const kind = { Int: "number", Float: "number", Boolean: "boolean", String: "string", ID: "string" }[named.name];
    return kind === undefined || typeof value === kind ? undefined : `${path} is ${JSON.stringify(value)}`;
  }

  /** Whether a selection distinguishes types. */
  private tells(set: SelectionSetNode): boolean {
    return set.selections.some((each) => each.kind !== Kind.FIELD || each.name.value === "__typename");
  }

  private fields(
    sets: readonly SelectionSetNode[],
    owner: string,
    runtime: string | undefined,
  ): Map<string, { node: string; sets: { owner: string; isSure: boolean; selections: SelectionSetNode[] } }> {
    const found = new Map<
      string,
      { node: string; sets: { owner: string; isSure: boolean; selections: SelectionSetNode[] } }
    >();
    const add = (selections: readonly SelectionNode[], on: string, isSure: boolean): void => {
      for (const each of selections) {
        const isCertain = isSure && this.isCertain(each);
        if (each.kind === Kind.FIELD) {
          const key = each.alias?.value ?? each.name.value;
          const known = found.get(key);
          const below = each.selectionSet ? [each.selectionSet] : [];
          if (known) {
            known.sets.selections.push(...below);
            known.sets.isSure ||= isCertain;
          } else found.set(key, { node: each.name.value, sets: { owner: on, isSure: isCertain, selections: below } });
          continue;
        }
        const fragment = each.kind === Kind.FRAGMENT_SPREAD ? this.fragments.get(each.name.value) : each;
        const condition = fragment?.typeCondition?.name.value ?? on;
        if (fragment && this.applies(condition, runtime, owner))
          add(fragment.selectionSet.selections, condition, isCertain);
      }
    };
    for (const set of sets) add(set.selections, owner, true);
    return found;
  }

  private applies(condition: string, runtime: string | undefined, owner: string): boolean {
    const type = this.schema.getType(condition);
    if (runtime === undefined) return condition === owner;
    if (condition === runtime) return true;
    const actual = this.schema.getType(runtime);
    return isAbstractType(type) && isObjectType(actual) && this.schema.isSubType(type, actual);
  }

  private isCertain(node: SelectionNode): boolean {
    return !(node.directives ?? []).some(({ name }) => name.value === "include" || name.value === "skip");
  }
}
