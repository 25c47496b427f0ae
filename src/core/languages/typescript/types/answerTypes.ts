import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { answerType } from "../calls/printAnswer.js";
import { silent } from "./printType.js";

/**
 * Returns the type of a call's response for another module than the call's, and the types that this module imports for
 * it.
 */
export function answerTypes(
  lowered: LoweredCall,
  context: RestContext,
): { readonly answer: string; readonly types: readonly string[] } {
  const names = context.names.rest(lowered.call);
  // Printing a name makes it an import, which must not happen for the parts of a type of the call's own.
  const answer = answerType(lowered, { ...context, printer: silent(context.printer) });
  if (lowered.call.answerChoices.length > 0) return { answer, types: [names.answers] };
  if (answer === names.answer && !isShape(lowered, context, answer)) return { answer, types: [names.answer] };
  answerType(lowered, context);
  return { answer, types: [] };
}

/** Whether the response's own name is that of a shared type, not of one in the call's module. */
function isShape({ call }: LoweredCall, { printer }: RestContext, answer: string): boolean {
  return call.answers.some(({ type }) => type?.shape.kind === "named" && printer.names.get(type.shape.key) === answer);
}
