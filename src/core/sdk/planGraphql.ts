import type { Field, GraphqlContract, Reference } from "../contract/model.js";
import { reachedTypes } from "../contract/childReferences.js";
import type { QueryDocuments } from "../graphql/queryModel.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, NameScope, typeNameFrom } from "./nameScope.js";
import type { GraphqlCall, GraphqlPlan, PlannedFragment } from "./sdkPlan.js";
import { TypePlanner } from "./typePlanner.js";

/** Everything that is called after an operation; claimed for all before anything inside them is named. */
function ownNames(
  name: string,
  scope: NameScope,
): Pick<GraphqlCall, "name" | "typeNames" | "guard"> & { answer: string } {
  const own = (suffix: string): string => scope.claim(name + suffix, `${name} ${suffix}`);
  return {
    name,
    answer: own("Answer"),
    typeNames: { variables: own("Variables"), failure: own("Failure") },
    guard: `is${scope.claim(`Is${name}Failure`, `${name} guard`).slice(2)}`,
  };
}

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
    documents.operations.map((operation) => [
      operation.name,
      ownNames(scope.claim(typeNameFrom(operation.name), operation.name), scope),
    ]),
  );
  const partNames = new Map(
    documents.fragments.map(({ name }) => [name, scope.claim(`${typeNameFrom(name)}Part`, `${name} part`)]),
  );
  const fragments = documents.fragments.map((fragment): PlannedFragment => {
    const name = partNames.get(fragment.name) ?? fragment.name;
    return { name, on: fragment.on, reference: planner.reference(fragment.shape, "answer", name) };
  });
  const calls = documents.operations.map((operation): GraphqlCall => {
    const { name, answer, ...own } = names.get(operation.name) ?? ownNames(operation.name, scope);
    const variables = operation.variables.map((field): Field => ({
      ...field,
      type: planner.reference(field.type, "request", [name, typeNameFrom(field.name)]),
    }));
    return {
      name,
      ...own,
      operation,
      variables,
      answer: planner.reference(operation.answer, "answer", answer),
    };
  });
  planner.settleNames();
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
