import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { answerType } from "../calls/printAnswer.js";
import { silent } from "./printType.js";

/** The type of a call's answer in another module than the call's, and the types that stand beside the call for it. */
export function answerTypes(
  lowered: LoweredCall,
  context: RestContext,
): { readonly answer: string; readonly types: readonly string[] } {
  const names = context.names.rest(lowered.call);
  // Printing a name makes it an import, which what a type of the call's own is made of must not become.
  const answer = answerType(lowered, { ...context, printer: silent(context.printer) });
  if (lowered.call.answerChoices.length > 0) return { answer, types: [names.answers] };
  if (answer === names.answer && !isShape(lowered, context, answer)) return { answer, types: [names.answer] };
  answerType(lowered, context);
  return { answer, types: [] };
}

/** Whether the answer's own name is that of a shared type, and not of one beside the call. */
function isShape({ call }: LoweredCall, { printer }: RestContext, answer: string): boolean {
  return call.answers.some(({ type }) => type?.shape.kind === "named" && printer.names.get(type.shape.key) === answer);
}
