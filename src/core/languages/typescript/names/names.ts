import { contractOwnNames, NameScope, typeNameFrom, type NameClash } from "../../../sdk/nameScope.js";
import type {
  ContractPlan,
  GraphqlCall,
  GraphqlPlan,
  PlannedArgument,
  RestCall,
  RestPlan,
} from "../../../sdk/sdkPlan.js";
import { camelCase } from "../../../text/words.js";
import { contractNames, typeIdentifier, typeNames, valueIdentifier, type TypeNames } from "./identifiers.js";

/** The names of all exports of a REST call. */
export interface RestCallNames {
  readonly call: string;
  /** The function behind a deprecated call, which is not deprecated itself, for the grouped calls. */
  readonly perform: string;
  readonly args: string;
  readonly answer: string;
  /** The responses by media type, if the call has a choice. */
  readonly answers: string;
  readonly failure: string;
  readonly isFailure: string;
  /** The headers of responses and failures, and the function that reads them. */
  readonly headers: string;
  readonly headersReader: string;
  /** The function for all items of all pages; "" if there are no pages. */
  readonly items: string;
  /** The function behind it, which is not deprecated itself. */
  readonly performItems: string;
  /** The description of all its pages, among the described calls. */
  readonly describedPages: string;
}

/** The names of all exports of a GraphQL call. */
export interface GraphqlCallNames {
  readonly call: string;
  /** The constant with the operation's text and types. */
  readonly operation: string;
  readonly variables: string;
  readonly failure: string;
  readonly isFailure: string;
}

/** All names of a contract in a TypeScript SDK. */
export interface TypescriptNames {
  readonly contract: ReturnType<typeof contractNames>;
  /** The name of every planned type, by id. */
  readonly types: TypeNames;
  readonly rest: (call: RestCall) => RestCallNames;
  readonly graphql: (call: GraphqlCall) => GraphqlCallNames;
  /** Names that differ because others have the same one. */
  readonly clashes: readonly NameClash[];
}

/** Names everything in a contract's plan. */
export function typescriptNames(plan: ContractPlan): TypescriptNames {
  const { rest, graphql, clashes } = plan.protocol === "rest" ? restNames(plan) : graphqlNames(plan);
  return { contract: contractNames(plan.name), types: typeNames(plan), rest, graphql, clashes };
}

type CallNaming = Pick<TypescriptNames, "rest" | "graphql" | "clashes">;

function restNames(plan: RestPlan): CallNaming {
  const functions = new NameScope(contractOwnNames(plan.name));
  for (const { name } of plan.calls) functions.claim(name);
  // All guards come before any pages, so that a new call with pages does not rename a guard.
  const own = plan.calls.map((call) => ({
    call,
    guard: functions.claim(`is${typeNameFrom(call.name)}Failure`, `${call.name} guard`),
    headersReader: functions.claim(`${call.name}Headers`, `${call.name} headers`),
  }));
  const described = new NameScope(plan.calls.map(({ name }) => valueIdentifier(name)));
  const names = new Map(
    own.map(({ call, guard, headersReader }) => {
      const items = call.paging ? functions.claim(`${call.name}Items`, `${call.name} items`) : "";
      const describedPages = call.paging ? described.claim(`${valueIdentifier(call.name)}Pages`) : "";
      return [call, restCallNames(call, { guard, headersReader, items, describedPages })];
    }),
  );
  return { rest: (call) => known(names, call), graphql: () => unknown(), clashes: functions.clashes };
}

/** Names that are claimed together with those of other calls. */
interface ClaimedNames extends Pick<RestCallNames, "headersReader" | "items" | "describedPages"> {
  readonly guard: string;
}

function restCallNames(call: RestCall, { guard, headersReader, items, describedPages }: ClaimedNames): RestCallNames {
  const identifier = valueIdentifier(call.name);
  const { args, answer, answers, failure, headers } = call.typeNames;
  const pages = items === "" ? "" : valueIdentifier(items);
  const isDeprecated = call.operation.deprecated !== undefined;
  return {
    call: identifier,
    perform: isDeprecated ? `perform${args.slice(0, -"Args".length)}` : identifier,
    args: typeIdentifier(args),
    answer: typeIdentifier(answer),
    answers: typeIdentifier(answers),
    failure: typeIdentifier(failure),
    isFailure: valueIdentifier(guard),
    headers: typeIdentifier(headers),
    headersReader: valueIdentifier(headersReader),
    items: pages,
    describedPages,
    performItems: isDeprecated ? `perform${typeIdentifier(args.slice(0, -"Args".length))}Items` : pages,
  };
}

function graphqlNames(plan: GraphqlPlan): CallNaming {
  const scope = new NameScope([
    ...contractOwnNames(plan.name),
    ...[...plan.types.values()].map(({ name }) => name),
    ...plan.calls.flatMap(({ name, typeNames }) => [name, typeNames.variables, typeNames.failure]),
  ]);
  const names = new Map(
    plan.calls.map((call) => {
      const operation = typeIdentifier(call.name);
      const lower = valueIdentifier(camelCase(call.name) || call.name);
      const guard = `is${scope.claim(`Is${call.name}Failure`, `${call.name} guard`).slice(2)}`;
      const own: GraphqlCallNames = {
        call: lower === operation ? `${lower}Call` : lower,
        operation,
        variables: typeIdentifier(call.typeNames.variables),
        failure: typeIdentifier(call.typeNames.failure),
        isFailure: valueIdentifier(guard),
      };
      return [call, own];
    }),
  );
  return { rest: () => unknown(), graphql: (call) => known(names, call), clashes: scope.clashes };
}

function known<Call, Names>(names: ReadonlyMap<Call, Names>, call: Call): Names {
  const found = names.get(call);
  if (found === undefined) throw new Error("The call belongs to another plan.");
  return found;
}

function unknown(): never {
  throw new Error("The call belongs to another protocol.");
}

/**
 * Members that every object inherits. An optional argument with such a name would always be present, so it gets the
 * name that only it has.
 */
const inheritedNames = new Set([
  "constructor",
  "hasOwnProperty",
  "isPrototypeOf",
  "propertyIsEnumerable",
  "toLocaleString",
  "toString",
  "valueOf",
]);

/** Returns the key of an argument in a call's argument object. */
export function argumentKey({ name, apart }: Pick<PlannedArgument, "name" | "apart">): string {
  return inheritedNames.has(name) ? apart : name;
}
