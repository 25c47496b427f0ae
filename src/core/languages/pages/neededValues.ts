import type { Field, Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";

/** How a language calls what a call takes. */
export interface ValueNames {
  readonly argument: (argument: PlannedArgument) => string;
  readonly variable: (field: Field, variables: readonly Field[]) => string;
}

function isGraphql(lowered: LoweredCall | LoweredGraphqlCall): lowered is LoweredGraphqlCall {
  return "file" in lowered;
}

/** What a call cannot do without, in the order in which languages with named arguments take it: the body is last. */
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
