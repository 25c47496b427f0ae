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

/** Names of everything a REST call exports. */
export interface RestCallNames {
  readonly call: string;
  /** The undeprecated function behind a deprecated call, for the grouped calls. */
  readonly perform: string;
  readonly args: string;
  readonly answer: string;
  /** The answers by media type, where a call can be asked for one. */
  readonly answers: string;
  readonly failure: string;
  readonly isFailure: string;
  /** The headers of answers and failures, and the function that reads them. */
  readonly headers: string;
  readonly headersReader: string;
  /** The function that goes through all items of all pages; "" where there are no pages. */
  readonly items: string;
  /** The undeprecated function behind it. */
  readonly performItems: string;
  /** What describes all its pages, among the described calls. */
  readonly describedPages: string;
}

/** Names of everything a GraphQL call exports. */
export interface GraphqlCallNames {
  readonly call: string;
  /** The value that holds the operation's text and types. */
  readonly operation: string;
  readonly variables: string;
  readonly failure: string;
  readonly isFailure: string;
}

/** Every identifier that a contract gets in a TypeScript SDK. */
export interface TypescriptNames {
  readonly contract: ReturnType<typeof contractNames>;
  /** Of every planned type, by id. */
  readonly types: TypeNames;
  readonly rest: (call: RestCall) => RestCallNames;
  readonly graphql: (call: GraphqlCall) => GraphqlCallNames;
  /** Names that are not what they would be if others did not want the same. */
  readonly clashes: readonly NameClash[];
}

/** Names everything that a contract's plan holds. */
export function typescriptNames(plan: ContractPlan): TypescriptNames {
  const { rest, graphql, clashes } = plan.protocol === "rest" ? restNames(plan) : graphqlNames(plan);
  return { contract: contractNames(plan.name), types: typeNames(plan), rest, graphql, clashes };
}

type CallNaming = Pick<TypescriptNames, "rest" | "graphql" | "clashes">;

function restNames(plan: RestPlan): CallNaming {
  const functions = new NameScope(contractOwnNames(plan.name));
  for (const { name } of plan.calls) functions.claim(name);
  // All guards before any pages, so that a call with pages more moves no guard.
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

/** Names that are claimed among those of other calls. */
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
 * What every object inherits: an argument of that name which may be absent would be there all the same, so that it is
 * called what only it is called.
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

/** The key of an argument in the object that a call takes. */
export function argumentKey({ name, apart }: Pick<PlannedArgument, "name" | "apart">): string {
  return inheritedNames.has(name) ? apart : name;
}
