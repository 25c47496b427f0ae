import type { Field, Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";

/** The language's names for the values of a call. */
export interface ValueNames {
  readonly argument: (argument: PlannedArgument) => string;
  readonly variable: (field: Field, variables: readonly Field[]) => string;
}

function isGraphql(lowered: LoweredCall | LoweredGraphqlCall): lowered is LoweredGraphqlCall {
  return "file" in lowered;
}

/** Returns the required values of a call, in the order for languages with named arguments: the body is last. */
export function neededValues(
  lowered: LoweredCall | LoweredGraphqlCall,
  names: ValueNames,
): { readonly name: string; readonly type: Reference }[] {
  const needed = isGraphql(lowered)
    ? lowered.call.variables
        .filter((field) => field.required)
        .map((field) => ({ name: names.variable(field, lowered.call.variables), type: field.type }))
    : lowered.call.arguments
        .filter((argument) => argument.required && !argument.standing)
        .map((argument) => ({ name: names.argument(argument), type: argument.type }));
  return sortedBy(needed, ({ name }) => (name === "body" ? "~" : name));
}
