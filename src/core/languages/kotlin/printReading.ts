import type { Reference } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import { isTextChoice } from "../../sdk/planContent.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../sdk/lower/reading.js";
import type { PlannedResponse } from "../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "./contractContext.js";
import type { AnswerShape } from "./printAnswer.js";
import { quoted } from "./escape.js";
import { checkText } from "./printChecks.js";
import { statusClass } from "./printFailure.js";
import { admitsNull, printForm, printReference } from "./printType.js";

/** The type of what is read of a response; undefined where nothing is. */
export function bodyType({ type }: PlannedResponse, { as }: StatusReading, context: FileContext): string | undefined {
  if (as === "none" || !type) return as === "bytes" ? byteString(context) : undefined;
  if (as === "bytes") return byteString(context);
  if (as === "text" && !isWords(type, context)) return "String";
  return printReference(type, context);
}

function byteString({ uses }: FileContext): string {
  return uses.other("okio.ByteString");
}

/** Whether a text can be read as a value of a type. */
function isWords({ shape }: Reference, { contract }: FileContext): boolean {
  const inner = resolveShape(shape, contract.types);
  return inner.kind === "text" || isTextChoice(inner);
}

const itemKinds = {
  lines: "Lines",
  sequence: "Sequence",
  events: "Events",
  eventTexts: "EventTexts",
  eventRecords: "EventRecords",
} as const;

/** How a body is read: an expression. */
export function bodyForm({ type }: PlannedResponse, reading: StatusReading, context: FileContext): string {
  const { uses } = context;
  const form = uses.wire("BodyForm");
  const { as, check } = reading;
  if (as === "bytes") return `${form}.Bytes`;
  if (as === "none" || !type) return `${form}.None`;
  if (as === "text") {
    const reader = isWords(type, context) ? printForm(type, "read", context) : uses.wire("TextForm");
    return `${form}.Text(${reader})`;
  }
  const plain = printForm(type, "read", context);
  const reader = check ? `${uses.wire("checked")}(${checkText(check, context)}, ${plain})` : plain;
  if (as === "json") return `${form}.Json(${reader})`;
  return `${form}.Items(${uses.wire("ItemKind")}.${itemKinds[as]}, ${reader})`;
}

/** Prints how a call reads what it is answered. */
export function printReading(
  { call, answers, failures }: Pick<LoweredCall, "call" | "answers" | "failures">,
  { name, answer }: { readonly name: string; readonly answer: AnswerShape },
  context: RestContext & FileContext,
): string {
  const names = context.names.call(call);
  const { uses } = context;
  const responses = answer.responses;
  const rules = answers.map((reading, at) => answerRule(reading, responses[at], answer, context));
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
  answer: AnswerShape,
  context: FileContext,
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
