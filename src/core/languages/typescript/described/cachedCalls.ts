import type { LoweredCall, LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import type { PageReading } from "../../../sdk/lower/pageReading.js";
import { answerTypes } from "../types/answerTypes.js";
import type { ContractContext, GraphqlContext, RestContext } from "../contractContext.js";
import { callSignature } from "../calls/printCallFunction.js";
import { variablesType } from "../calls/printGraphqlCall.js";
import { printReference } from "../types/printType.js";

/** A call as its description shows it. */
export interface CachedCall {
  readonly name: string;
  /** The file of its module, without extension. */
  readonly file: string;
  /** The function that makes the call. */
  readonly perform: string;
  readonly kind: "Read" | "Change" | "Stream";
  /** Type parameters with their brackets; "" if there are none. */
  readonly generics: string;
  readonly args: { readonly type: string; readonly isNeeded: boolean } | undefined;
  readonly answer: string;
  readonly failure: string;
  /** The types in its module. */
  readonly types: readonly string[];
  readonly pages?: LoweredCall & { readonly pages: PageReading };
  readonly summary: string | undefined;
  readonly deprecated?: string | undefined;
}

/** Returns all calls of a contract for the module of described calls. */
export function cachedCalls({ contract, ...context }: ContractContext): CachedCall[] {
  if (contract.protocol === "graphql")
    return contract.calls.map((lowered) => graphqlCall(lowered, { ...context, contract }));
  return contract.files.flatMap(({ file, calls }) =>
    calls.map((lowered) => restCall(lowered, file, { ...context, contract })),
  );
}

function restCall(lowered: LoweredCall, file: string, context: RestContext): CachedCall {
  const { call, pages } = lowered;
  const names = context.names.rest(call);
  const { generics, argsType, argsNeeded } = callSignature(lowered, context);
  const { answer, types } = answerTypes(lowered, context);
  const { summary, description, deprecated } = call.operation;
  const hasOwnArgs = call.arguments.length > 0;
  return {
    name: names.call,
    file,
    perform: names.perform,
    kind: lowered.isStream ? "Stream" : isRead(lowered) ? "Read" : "Change",
    generics,
    args: hasOwnArgs || generics !== "" ? { type: argsType, isNeeded: argsNeeded } : undefined,
    answer: generics === "" ? answer : `${names.answers}[Type]`,
    failure: names.failure,
    types: [...(hasOwnArgs ? [names.args] : []), names.failure, ...types],
    summary: summary ?? description,
    deprecated,
    ...(pages ? { pages: { ...lowered, pages } } : {}),
  };
}

/** Methods that change nothing on the server (RFC 9110, section 9.2.1). */
const safeMethods: ReadonlySet<string> = new Set(["get", "head", "options", "query"]);

/** A call reads if its method is safe, or if it has pages. */
function isRead({ call, pages }: LoweredCall): boolean {
  return pages !== undefined || safeMethods.has(call.operation.method.toLowerCase());
}

function graphqlCall(lowered: LoweredGraphqlCall, context: GraphqlContext): CachedCall {
  const { call, file, isStream } = lowered;
  const names = context.names.graphql(call);
  const hasArgs = call.variables.length > 0;
  const isNeeded = call.variables.some((field) => field.required);
  return {
    name: names.call,
    file,
    perform: names.call,
    kind: isStream ? "Stream" : call.operation.root === "mutation" ? "Change" : "Read",
    generics: "",
    args: hasArgs ? { type: variablesType(lowered, names), isNeeded } : undefined,
    answer: printReference(call.answer, context.printer, "exact"),
    failure: names.failure,
    types: [names.failure, ...(hasArgs ? [names.variables] : [])],
    summary: call.operation.description,
  };
}
