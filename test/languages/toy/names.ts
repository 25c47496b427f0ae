import { givenTo, printCoordinate } from "../../../src/core/use/coordinate.js";
import type { CallNames, ContractNames } from "../../../src/core/sdk/contractNames.js";
import { NameScope } from "../../../src/core/sdk/nameScope.js";
import type { ContractPlan, GraphqlCall, RestCall } from "../../../src/core/sdk/sdkPlan.js";
import { words } from "../../../src/core/text/words.js";

const reserved = ["record", "choice", "union", "map", "list", "words", "whole", "decimal", "flag", "bytes", "anything"];

/** A name in the toy's spelling: lower-case words joined by underscores. */
export function toyName(name: string): string {
  const joined = words(name).join("_").toLowerCase();
  return reserved.includes(joined) || !/^\p{L}/u.test(joined) ? `${joined}_` : joined;
}

/** Returns every name in a contract's part of a toy SDK. */
export function toyNames(plan: ContractPlan): ContractNames {
  const scope = new NameScope(reserved);
  const types = new Map([...plan.types.values()].map(({ id, name }) => [id, scope.claim(toyName(name), id)]));
  const calls = new NameScope();
  const byCall = new Map<RestCall | GraphqlCall, CallNames>();
  for (const call of plan.calls) {
    const name = calls.claim(toyName(call.name), call.name);
    const pages = "paging" in call ? { pages: `${name}_all`, allPages: [`${name}_all`] } : { allPages: [] };
    byCall.set(call, {
      call: name,
      ...pages,
      failures: [],
      all: [name],
      argumentCoordinate: (argument) => givenTo(name, argument),
      headerCoordinate: (header) => printCoordinate(`${name}[${header}]`),
    });
  }
  return {
    connect: `open_${toyName(plan.name)}`,
    connectionCoordinate: (given) => givenTo(`open_${toyName(plan.name)}`, given),
    types,
    call: (call) => {
      const found = byCall.get(call);
      if (!found) throw new Error("The call belongs to another plan.");
      return found;
    },
    argument: ({ name }) => toyName(name),
    clashes: [...scope.clashes, ...calls.clashes],
  };
}
