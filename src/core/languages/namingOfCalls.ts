import { givenTo, memberOf } from "../use/coordinate.js";
import type { CallNames, ContractNames } from "../sdk/contractNames.js";
import type { NameClash } from "../sdk/nameScope.js";
import type { GraphqlCall, RestCall } from "../sdk/sdkPlan.js";
import type { CallParts } from "./callParts.js";

/** The names of a contract in a language with one failure type for each call. */
interface NamesWithFailures {
  readonly contract: { readonly connection: string };
  readonly types: ReadonlyMap<string, string>;
  readonly call: (call: RestCall | GraphqlCall) => CallParts;
  readonly clashes: readonly NameClash[];
}

/**
 * Returns the names in a contract's part of an SDK, as far as code other than the printer needs them.
 *
 * @param argument returns the name of an argument
 */
export function namingOfCalls(names: NamesWithFailures, argument: ContractNames["argument"]): ContractNames {
  const { connection } = names.contract;
  return {
    connect: connection,
    connectionCoordinate: (given) => memberOf(connection, given),
    types: names.types,
    call: (call): CallNames => {
      const own = names.call(call);
      const all = [own.call, own.items, own.failure, own.headers, own.answer, own.operation];
      return {
        call: own.call,
        ...(own.items === "" ? {} : { pages: own.items }),
        allPages: own.items === "" ? [] : [own.items],
        failures: [own.failure],
        all: all.filter((name) => name !== ""),
        argumentCoordinate: (given) => givenTo(own.call, given),
        headerCoordinate: (header) => memberOf(own.headers, header),
      };
    },
    argument,
    clashes: names.clashes,
  };
}
