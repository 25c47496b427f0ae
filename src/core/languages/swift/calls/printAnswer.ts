import { answerWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import type { PlannedResponse, RestCall } from "../../../sdk/sdkPlan.js";
import { answerShapeOf, type AnswerShape } from "../../answerShape.js";
import { bodyType } from "./bodyForm.js";
import type { ContractContext, RestContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { statusCase } from "./statusCase.js";

export type { AnswerShape };

/**
 * Returns the type of a call's response.
 *
 * @param name the name of the enum for successes without a common type
 */
export function answerShape(
  responses: readonly PlannedResponse[],
  readings: readonly StatusReading[],
  { name, context }: { readonly name: string; readonly context: ContractContext },
): AnswerShape {
  const types = readings.map((reading, at) => {
    const response = responses[at];
    return response && bodyType(response, reading, context);
  });
  return answerShapeOf(responses, types, { nothing: "Swift.Void", several: `${context.space}.${name}` });
}

/** Returns the type of a call's response by default. */
export function usualAnswer({ call, answers }: LoweredCall, context: ContractContext): AnswerShape {
  return answerShape(call.answers, answers, { name: context.names.call(call).answer, context });
}

/** Prints the enum of successes without a common type; "" if they have one. */
export function printAnswer(
  call: RestCall,
  readings: readonly StatusReading[],
  { shape, context }: { readonly shape: AnswerShape; readonly context: RestContext },
): string {
  if (shape.kind === "one") return "";
  const cases = shape.responses.map((response, at) => {
    const reading = readings[at];
    const type = reading && bodyType(response, reading, context);
    return `  case ${statusCase(response.status)}${type === undefined ? "" : `(${type})`}\n`;
  });
  const name = shape.type.slice(context.space.length + 1);
  return `${docComment(answerWords(context.names.call(call).call, call))}${context.access}enum ${name}: Swift.Hashable, Swift.Sendable {\n${cases.join("")}}\n`;
}
