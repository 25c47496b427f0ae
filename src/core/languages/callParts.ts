import type { NameScope } from "../sdk/nameScope.js";
import type { ContractPlan, GraphqlCall, PlannedSent, RestCall } from "../sdk/sdkPlan.js";
import { camelCase, pascalCase } from "../text/words.js";

/** The names that belong to a call in a language with one failure type for each call. */
export interface CallParts {
  /** The function, and the one for all items of all pages; "" if there are no pages. */
  readonly call: string;
  readonly items: string;
  readonly failure: string;
  /** How its responses are read. */
  readonly reading: string;
  /** The failures that a test can make it return. */
  readonly fails: string;
  /** Its response, if its responses have no type in common. */
  readonly answer: string;
  readonly headers: string;
  /** The object for its arguments, if there are too many for a method; "" in a language without a limit. */
  readonly args: string;
  /** Its body, if the body can be sent in several media types. */
  readonly body: string;
  /** The calls for other media types than the default one, by media type. */
  readonly answeredAs: ReadonlyMap<
    string,
    { readonly call: string; readonly answer: string; readonly reading: string }
  >;
  /** GraphQL: the constant with the operation. */
  readonly operation: string;
}

/** The names in use, and how a language spells names. */
export interface CallSpelling {
  /** The names of top-level declarations, and those of functions. */
  readonly scope: NameScope;
  readonly functions: NameScope;
  readonly typeIdentifier: (name: string) => string;
  readonly functionIdentifier: (name: string) => string;
  /** Whether the readers of responses and the objects for arguments are types with names of their own. */
  readonly hasTypesOfParts: boolean;
}

/** Names the parts of each call of a plan. */
export function callParts(
  plan: ContractPlan,
  { scope, functions, typeIdentifier, functionIdentifier, hasTypesOfParts }: CallSpelling,
): ReadonlyMap<RestCall | GraphqlCall, CallParts> {
  const planned = new Set([...plan.types.values()].map(({ name }) => name));
  const parts = new Map<RestCall | GraphqlCall, CallParts>();
  // The functions of all calls get their names before other functions of a call.
  const called = plan.calls.map((call) => {
    const wanted = "arguments" in call ? call.name : camelCase(call.name) || call.name;
    return { call, function: functions.claim(functionIdentifier(wanted), call.name) };
  });
  for (const { call, function: name } of called) {
    const base = typeIdentifier(pascalCase(call.name) || call.name);
    const isRest = "arguments" in call;
    const claim = (wanted: string): string => scope.claim(typeIdentifier(wanted), `${call.name} ${wanted}`);
    const inPlan = isRest ? call.typeNames : undefined;
    const others = isRest ? call.answerChoices.slice(1).map(({ mediaType }) => mediaType) : [];
    parts.set(call, {
      call: name,
      items: isRest && call.paging ? functions.claim(`${name}Items`, `${call.name} items`) : "",
      failure: claim(call.typeNames.failure),
      // If the whole response is one type, that type has the name, and there are no several types to distinguish.
      answer: inPlan ? (planned.has(inPlan.answer) ? inPlan.answer : claim(inPlan.answer)) : "",
      headers: inPlan ? claim(inPlan.headers) : "",
      args: inPlan && hasTypesOfParts ? claim(inPlan.args) : "",
      body: inPlan ? claim(`${base}Body`) : "",
      answeredAs: new Map(
        others.map((mediaType) => {
          const words = pascalCase(mediaType) || "Other";
          const own = functions.claim(`${name}As${words}`, `${call.name} as ${mediaType}`);
          const answer = claim(`${base}As${words}Answer`);
          return [mediaType, { call: own, answer, reading: hasTypesOfParts ? claim(`${base}As${words}Reading`) : own }];
        }),
      ),
      operation: isRest ? "" : claim(base),
      reading: hasTypesOfParts ? claim(`${base}Reading`) : name,
      fails: claim(`${base}Fails`),
    });
  }
  return parts;
}

/** Names the readers of each webhook and callback of a plan. */
export function sentNames(
  plan: ContractPlan,
  { scope, typeIdentifier }: Pick<CallSpelling, "scope" | "typeIdentifier">,
): ReadonlyMap<PlannedSent, string> {
  return new Map(
    (plan.protocol === "rest" ? plan.sent : []).map((sent) => [
      sent,
      scope.claim(typeIdentifier(sent.name), `${sent.name} webhook`),
    ]),
  );
}
