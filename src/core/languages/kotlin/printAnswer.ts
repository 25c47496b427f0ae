import { answerWords } from "../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../sdk/lower/reading.js";
import type { PlannedResponse, RestCall } from "../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "./contractContext.js";
import { docComment } from "./escape.js";
import { besideNested } from "./nestedNames.js";
import { bodyType } from "./bodyForm.js";
import { statusClass } from "./statusClass.js";
import { orNull } from "./printType.js";

/** What a call answers in source. */
export interface AnswerShape {
  /** "several" when its successes have no type in common: then each is a class. */
  readonly kind: "one" | "several";
  readonly type: string;
  /** Some successes have a body, and some have none. */
  readonly isOptional: boolean;
  readonly responses: readonly PlannedResponse[];
}

/** @param name of the sealed interface, where the successes have no type in common */
export function answerShape(
  responses: readonly PlannedResponse[],
  readings: readonly StatusReading[],
  { name, context }: { readonly name: string; readonly context: FileContext },
): AnswerShape {
  const types = readings.map((reading, at) => {
    const response = responses[at];
    return response && bodyType(response, reading, context);
  });
  const known = new Set(types.filter((type) => type !== undefined));
  const isOptional = types.includes(undefined);
  const [only] = known;
  if (only === undefined) return { kind: "one", type: "Unit", isOptional: false, responses };
  const plain = new Set([...known].map((type) => type.replace(/\?$/, "")));
  if (plain.size > 1) return { kind: "several", type: name, isOptional, responses };
  const isNullable = isOptional || [...known].some((type) => type.endsWith("?"));
  return { kind: "one", type: isNullable ? orNull(only) : only, isOptional, responses };
}

/** The shape of what a call answers when nothing special is asked for. */
export function usualAnswer({ call, answers }: LoweredCall, context: FileContext): AnswerShape {
  return answerShape(call.answers, answers, { name: context.names.call(call).answer, context });
}

/** Prints the interface of successes that have no type in common; "" where they have one. */
export function printAnswer(
  call: RestCall,
  readings: readonly StatusReading[],
  shape: AnswerShape,
  context: RestContext & FileContext,
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
