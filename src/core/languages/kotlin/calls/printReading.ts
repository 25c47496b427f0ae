import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { bodyForm, bodyType } from "./bodyForm.js";
import type { AnswerShape } from "./printAnswer.js";
import { quoted } from "../names/escape.js";
import { admitsNull } from "../types/printType.js";
import { statusClass } from "./statusClass.js";

/** Prints how a call reads its responses. */
export function printReading(
  { call, answers, failures }: Pick<LoweredCall, "call" | "answers" | "failures">,
  { name, answer }: { readonly name: string; readonly answer: AnswerShape },
  context: RestContext & FileContext,
): string {
  const names = context.names.call(call);
  const { uses } = context;
  const responses = answer.responses;
  const rules = answers.map((reading, at) => answerRule(reading, responses[at], { answer, context }));
  const failed = failures.map((reading, at) => {
    const response = call.failures[at];
    const status = quoted(reading.status);
    const made = `${names.failure}::${statusClass(reading.status)}`;
    if (!response || bodyType(response, reading, context) === undefined)
      return `${uses.wire("failed")}(${status}, ${uses.wire("BodyForm")}.None) { report, _ -> ${names.failure}.${statusClass(reading.status)}(report) }`;
    return `${uses.wire("failed")}(${status}, ${bodyForm(response, reading, context)}, ${made})`;
  });
  const list = (items: readonly string[]): string =>
    items.length === 0 ? "emptyList()" : `listOf(\n${items.map((item) => `        ${item},\n`).join("")}    )`;
  return `private object ${name} : ${uses.wire("Reading")}<${answer.type}>(\n    answers = ${list(rules)},\n    failures = ${list(failed)},\n    other = ${names.failure}::Other,\n)\n`;
}

function answerRule(
  reading: StatusReading,
  response: PlannedResponse | undefined,
  { answer, context }: { readonly answer: AnswerShape; readonly context: FileContext },
): string {
  const { uses } = context;
  const status = quoted(reading.status);
  const type = response && bodyType(response, reading, context);
  if (!response || type === undefined) {
    const made =
      answer.kind === "several"
        ? `${answer.type}.${statusClass(reading.status)}`
        : answer.type === "Unit"
          ? "Unit"
          : "null";
    return `${uses.wire("nothing")}(${status}, ${made})`;
  }
  const form = bodyForm(response, reading, context);
  if (answer.kind === "several")
    return `${uses.wire("answer")}(${status}, ${form}, ${answer.type}::${statusClass(reading.status)})`;
  const isNullable = response.type !== undefined && admitsNull(response.type, context);
  return `${uses.wire(answer.type.endsWith("?") && (isNullable || answer.isOptional) ? "answerOrNull" : "answer")}(${status}, ${form})`;
}
