import type { NameScope } from "../sdk/nameScope.js";
import type { ContractPlan, GraphqlCall, PlannedSent, RestCall } from "../sdk/sdkPlan.js";
import { camelCase, pascalCase } from "../text/words.js";

/** Names of everything that comes with a call in a language that has one type of failures for each call. */
export interface CallParts {
  /** The function, and the one that goes through all items of all pages; "" where there are no pages. */
  readonly call: string;
  readonly items: string;
  readonly failure: string;
  /** How its answers are read. */
  readonly reading: string;
  /** What a test lets it fail with. */
  readonly fails: string;
  /** What it answers, where its answers have no type in common. */
  readonly answer: string;
  readonly headers: string;
  /** What holds its arguments, where there are too many for a method; "" in a language that takes any number. */
  readonly args: string;
  /** What it takes as its body, where that can be sent in several media types. */
  readonly body: string;
  /** The calls that ask for another media type than the usual one, by it. */
  readonly answeredAs: ReadonlyMap<
    string,
    { readonly call: string; readonly answer: string; readonly reading: string }
  >;
  /** GraphQL: what holds the operation. */
  readonly operation: string;
}

/** What is in use already, and how a language spells names. */
export interface CallSpelling {
  /** Names that stand alone, and those of functions. */
  readonly scope: NameScope;
  readonly functions: NameScope;
  readonly typeIdentifier: (name: string) => string;
  readonly functionIdentifier: (name: string) => string;
  /** How answers are read, and what holds arguments, are types with names of their own. */
  readonly hasTypesOfParts: boolean;
}

/** Names what comes with each call of a plan. */
export function callParts(
  plan: ContractPlan,
  { scope, functions, typeIdentifier, functionIdentifier, hasTypesOfParts }: CallSpelling,
): ReadonlyMap<RestCall | GraphqlCall, CallParts> {
  const planned = new Set([...plan.types.values()].map(({ name }) => name));
  const parts = new Map<RestCall | GraphqlCall, CallParts>();
  // Functions of all calls have their names before any that is made for a call.
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
      // A type that is all a call answers has the name; then there are no several ones to tell apart.
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

/** Names what reads each webhook and callback of a plan. */
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
