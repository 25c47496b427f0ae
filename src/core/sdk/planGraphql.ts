import type { Field, GraphqlContract, Reference } from "../contract/model.js";
import { reachedTypes } from "../contract/childReferences.js";
import type { QueryDocuments } from "../graphql/queryModel.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, NameScope, typeNameFrom } from "./nameScope.js";
import type { GraphqlCall, GraphqlPlan, PlannedFragment } from "./sdkPlan.js";
import { TypePlanner } from "./typePlanner.js";

/** Plans one call for each operation of the query documents, and the enums, inputs and scalars they reach. */
export function planGraphql(
  contract: GraphqlContract,
  documents: QueryDocuments,
  mappedScalars: ReadonlySet<string>,
): GraphqlPlan {
  const roots: Reference[] = [
    ...documents.operations.flatMap((operation) => [
      operation.answer,
      ...operation.variables.map((variable) => variable.type),
    ]),
    ...documents.fragments.map((fragment) => fragment.shape),
  ];
  const reached = reachedTypes(
    roots.map((root) => root.shape),
    (key) => contract.types.get(key)?.shape,
  );
  const table = new Map([...contract.types].filter(([key]) => reached.has(key)));
  const scope = new NameScope(contractOwnNames(contract.name));
  const planner = new TypePlanner(table, scope);
  const names = new Map(
    documents.operations.map((operation) => [operation.name, scope.claim(typeNameFrom(operation.name))]),
  );
  const partNames = new Map(
    documents.fragments.map((fragment) => [fragment.name, `${typeNameFrom(fragment.name)}Part`]),
  );
  const fragments = documents.fragments.map((fragment): PlannedFragment => {
    const name = partNames.get(fragment.name) ?? fragment.name;
    return { name, on: fragment.on, reference: planner.reference(fragment.shape, "answer", name) };
  });
  const calls = documents.operations.map((operation): GraphqlCall => {
    const name = names.get(operation.name) ?? operation.name;
    const variables = operation.variables.map((field): Field => ({
      ...field,
      type: planner.reference(field.type, "request", `${name}${typeNameFrom(field.name)}`),
    }));
    const typeNames = { variables: scope.claim(`${name}Variables`), failure: scope.claim(`${name}Failure`) };
    return {
      name,
      typeNames,
      guard: `is${scope.claim(`Is${name}Failure`).slice(2)}`,
      operation,
      variables,
      answer: planner.reference(operation.answer, "answer", `${name}Answer`),
    };
  });
  assignFaces(
    planner.types,
    calls.flatMap((call) => call.variables.map((field) => field.type)),
    [...calls.map((call) => call.answer), ...fragments.map((fragment) => fragment.reference)],
  );
  return {
    protocol: "graphql",
    name: contract.name,
    title: contract.title,
    version: contract.version,
    calls,
    fragments,
    types: planner.types,
    untyped: countUntyped(planner.types.values(), [], mappedScalars),
  };
}
