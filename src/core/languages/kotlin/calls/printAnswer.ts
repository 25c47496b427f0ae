import { answerWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import type { PlannedResponse, RestCall } from "../../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { besideNested } from "../names/nestedNames.js";
import { answerShapeOf, type AnswerShape } from "../../answerShape.js";
import { bodyType } from "./bodyForm.js";
import { statusClass } from "./statusClass.js";

export type { AnswerShape };

/**
 * Returns the type of a call's response.
 *
 * @param name the name of the sealed interface for successes without a common type
 */
export function answerShape(
  responses: readonly PlannedResponse[],
  readings: readonly StatusReading[],
  { name, context }: { readonly name: string; readonly context: FileContext },
): AnswerShape {
  const types = readings.map((reading, at) => {
    const response = responses[at];
    return response && bodyType(response, reading, context);
  });
  return answerShapeOf(responses, types, { nothing: "Unit", several: name });
}

/** Returns the type of a call's response by default. */
export function usualAnswer({ call, answers }: LoweredCall, context: FileContext): AnswerShape {
  return answerShape(call.answers, answers, { name: context.names.call(call).answer, context });
}

/** Prints the interface of successes without a common type; "" if they have one. */
export function printAnswer(
  call: RestCall,
  readings: readonly StatusReading[],
  { shape, context }: { readonly shape: AnswerShape; readonly context: RestContext & FileContext },
): string {
  if (shape.kind === "one") return "";
  const name = shape.type;
  const nested = shape.responses.map(({ status }) => statusClass(status));
  const classes = shape.responses.map((response, at) => {
    const reading = readings[at];
    const type = reading && bodyType(response, reading, context);
    const own = statusClass(response.status);
    if (type === undefined) return `    public data object ${own} : ${name}\n`;
    return `    public data class ${own}(public val value: ${besideNested(type, nested, context)}) : ${name}\n`;
  });
  return `${docComment(answerWords(context.names.call(call).call, call))}public sealed interface ${name} {\n${classes.join("\n")}}\n`;
}
