import type { Field, GraphqlContract, Reference, TypeDefinition } from "../contract/model.js";
import { reachedTypes } from "../contract/reachedTypes.js";
import type { QueryDocuments } from "../graphql/documents/queryModel.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, NameScope, typeNameFrom } from "./nameScope.js";
import type { GraphqlCall, GraphqlPlan, PlannedFragment } from "./sdkPlan.js";
import { schemaTypes, withScalars, type ScalarMeaning } from "./graphqlTypes.js";
import { TypePlanner } from "./typePlanner.js";

/**
 * All names that follow an operation's name. They are claimed for all operations before the types inside them are
 * named.
 */
function ownNames(
  name: string,
  scope: NameScope,
  hasWhole: boolean,
): Pick<GraphqlCall, "name" | "typeNames"> & { answer: string; whole: string } {
  const own = (suffix: string): string => scope.claim(name + suffix, `${name} ${suffix}`);
  return {
    name,
    answer: own("Answer"),
    whole: hasWhole ? own("Whole") : "",
    typeNames: { variables: own("Variables"), failure: own("Failure") },
  };
}

/** The configuration of a GraphQL contract's part of an SDK. */
export interface GraphqlPlanOptions {
  /** Custom scalars with a known type. Others count as untyped. */
  readonly scalars?: ReadonlyMap<string, ScalarMeaning>;
  /** Which types of the schema to include: those in the query documents, or all. */
  readonly types?: "used" | "all";
  /** Whether unions have a member for types that the schema does not have yet. */
  readonly unions?: "closed" | "open";
}

/**
 * Plans one call for each operation of the query documents, and the types they use, or all of the schema's.
 *
 * @param documents the typed operations and fragments
 */
export function planGraphql(
  contract: GraphqlContract,
  documents: QueryDocuments,
  { scalars = new Map(), types = "used", unions = "closed" }: GraphqlPlanOptions = {},
): GraphqlPlan {
  const known = withScalars(contract.types, scalars);
  const all = types === "all" ? schemaTypes(contract, known) : known;
  const table = types === "all" ? all : usedTypes(all, documents);
  const scope = new NameScope(contractOwnNames(contract.name));
  const planner = new TypePlanner(table, scope, { withNewer: unions === "open" });
  const names = new Map(
    documents.operations.map((operation) => [
      operation.name,
      ownNames(scope.claim(typeNameFrom(operation.name), operation.name), scope, operation.whole !== undefined),
    ]),
  );
  const partNames = new Map(
    documents.fragments.map(({ name }) => [name, scope.claim(`${typeNameFrom(name)}Part`, `${name} part`)]),
  );
  const fragments = documents.fragments.map((fragment): PlannedFragment => {
    const name = partNames.get(fragment.name) ?? fragment.name;
    return {
      name,
      fragment: fragment.name,
      on: fragment.on,
      reference: planner.reference(fragment.shape, "answer", name),
    };
  });
  const calls = documents.operations.map((operation) =>
    plannedCall(operation, names.get(operation.name) ?? ownNames(operation.name, scope, false), planner),
  );
  const others = [...(types === "all" ? all.values() : [])].map((definition) =>
    planner.reference(
      { shape: { kind: "named", key: definition.key }, nullable: false },
      definition.role === "input" ? "form" : "answer",
      definition.name,
    ),
  );
  const isInput = ({ shape }: Reference): boolean => shape.kind === "named" && all.get(shape.key)?.role === "input";
  planner.settleNames();
  assignFaces(
    planner.types,
    [...calls.flatMap((call) => call.variables.map((field) => field.type)), ...others.filter(isInput)],
    [
      ...calls.flatMap((call) => [call.answer, ...(call.whole ? [call.whole] : [])]),
      ...fragments.map((fragment) => fragment.reference),
      ...others.filter((each) => !isInput(each)),
    ],
  );
  return {
    protocol: "graphql",
    name: contract.name,
    title: contract.title,
    version: contract.version,
    calls,
    fragments,
    types: planner.types,
    clashes: scope.clashes,
    untyped: countUntyped(planner.types.values(), [], new Set(scalars.keys())),
  };
}

/** Returns the types of a schema that query documents use. */
function usedTypes(
  all: ReadonlyMap<string, TypeDefinition>,
  { operations, fragments }: QueryDocuments,
): Map<string, TypeDefinition> {
  const roots: Reference[] = [
    ...operations.flatMap((operation) => [operation.answer, ...operation.variables.map((variable) => variable.type)]),
    ...fragments.map((fragment) => fragment.shape),
  ];
  const reached = reachedTypes(
    roots.map((root) => root.shape),
    (key) => all.get(key)?.shape,
  );
  return new Map([...all].filter(([key]) => reached.has(key)));
}

function plannedCall(
  operation: QueryDocuments["operations"][number],
  { name, answer, whole, ...own }: ReturnType<typeof ownNames>,
  planner: TypePlanner,
): GraphqlCall {
  const variables = operation.variables.map((field): Field => ({
    ...field,
    // Files are sent in forms, so the variables are planned as a form.
    type: planner.reference(field.type, "form", [name, typeNameFrom(field.name)]),
  }));
  return {
    name,
    ...own,
    operation,
    variables,
    answer: planner.reference(operation.answer, "answer", answer),
    ...(operation.whole ? { whole: planner.reference(operation.whole, "answer", whole) } : {}),
  };
}
