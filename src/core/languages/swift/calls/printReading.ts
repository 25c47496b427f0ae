import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import { bodyForm, bodyReader, bodyType } from "./bodyForm.js";
import type { RestContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import type { AnswerShape } from "./printAnswer.js";
import { admitsNull } from "../types/printType.js";
import { statusCase } from "./statusCase.js";

/** Prints a constant that describes how a call reads its responses. */
export function printReading(
  { call, answers, failures }: Pick<LoweredCall, "call" | "answers" | "failures">,
  { name, answer }: { readonly name: string; readonly answer: AnswerShape },
  context: RestContext,
): string {
  const names = context.names.call(call);
  const { space, wire } = context;
  const rules = answers.map((reading, at) => answerRule(reading, answer.responses[at], { answer, context }));
  const failed = failures.map((reading, at) => {
    const response = call.failures[at];
    const type = response && bodyType(response, reading, context);
    const form = response && type !== undefined ? bodyForm(response, reading, context) : ".none";
    const rule = type?.endsWith("?") === true ? "failureOrNil" : "failure";
    return `.${rule}(${quoted(reading.status)}, ${form}, ${space}.${names.failure}.${statusCase(reading.status)})`;
  });
  const list = (items: readonly string[]): string =>
    items.length === 0
      ? "[]"
      : `[\n${items.map((item) => `    ${item}`).join(",\n")}${items.length > 1 ? "," : ""}\n  ]`;
  return `static let ${spelled(name)} = ${wire}.Reading<${answer.type}, ${space}.${names.failure}>(\n  answers: ${list(rules)},\n  failures: ${list(failed)}\n)\n`;
}

function answerRule(
  reading: StatusReading,
  response: PlannedResponse | undefined,
  { answer, context }: { readonly answer: AnswerShape; readonly context: RestContext },
): string {
  const status = quoted(reading.status);
  const type = response && bodyType(response, reading, context);
  const several = answer.kind === "several" ? `${answer.type}.${statusCase(reading.status)}` : undefined;
  if (!response || type === undefined)
    return `.nothing(${status}, ${several ?? (answer.type === "Swift.Void" ? "()" : "nil")})`;
  if (response.type && isItems(reading))
    return `.items(${[status, `.${reading.as}`, bodyReader(response.type, reading, context), ...(several === undefined ? [] : [several])].join(", ")})`;
  const form = bodyForm(response, reading, context);
  if (several !== undefined) return `.answer(${status}, ${form}, ${several})`;
  const isNullable = response.type !== undefined && admitsNull(response.type, context);
  if (!answer.type.endsWith("?")) return `.answer(${status}, ${form})`;
  if (isNullable) return `.answerOrNil(${status}, ${form})`;
  return `.answer(${status}, ${form}) { $0 }`;
}

function isItems({ as }: StatusReading): boolean {
  return as !== "none" && as !== "json" && as !== "text" && as !== "bytes";
}
