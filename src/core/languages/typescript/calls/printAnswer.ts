import { sentences } from "../../../sdk/lower/sentences.js";
import type { Reference } from "../../../contract/model.js";
import { answerWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { RestContext } from "../contractContext.js";
import { comment, docComment, quoted } from "../names/escape.js";
import { printReference, printUnion } from "../types/printType.js";

/** Returns the type of a call's response, as written where the call is used. */
export function answerType(lowered: LoweredCall, context: Pick<RestContext, "names" | "printer">): string {
  const text = textOfAnswers(lowered.call.answers, lowered, context);
  return /^[\w$]+$/.test(text) || /^[\p{ID_Continue}$]+$/u.test(text) ? text : context.names.rest(lowered.call).answer;
}

/** The responses of several declared successes, as one type. */
function textOfAnswers(
  answers: readonly PlannedResponse[],
  { isStream }: LoweredCall,
  { printer }: Pick<RestContext, "printer">,
): string {
  const members = answers.flatMap((answer): Reference[] => (answer.type ? [answer.type] : []));
  const [only] = members;
  if (only && members.length === 1 && answers.length === 1) return printReference(only, printer, "exact");
  const union = members.length === 0 ? "" : printUnion({ kind: "union", members }, printer, { stance: "exact" });
  const absent = !isStream && (answers.length === 0 || answers.some((answer) => !answer.type));
  if (union === "unknown" || !absent) return union;
  return union === "" || union === "never" ? "undefined" : `${union} | undefined`;
}

/** Prints the type of a response without another name; "" if it has one. */
export function printAnswer(lowered: LoweredCall, context: RestContext): string {
  const { call } = lowered;
  const names = context.names.rest(call);
  if (answerType(lowered, context) !== names.answer) return "";
  const text = textOfAnswers(call.answers, lowered, context);
  // A record that is the whole response already has this name.
  return text === names.answer
    ? ""
    : `${docComment(answerWords(names.call, call))}export type ${names.answer} = ${text};\n`;
}

/** Prints the response types of a call by requested media type; "" if there is no choice. */
export function printAnswers(lowered: LoweredCall, context: RestContext): string {
  const { call } = lowered;
  if (call.answerChoices.length === 0) return "";
  const names = context.names.rest(call);
  const rows = call.answerChoices.map(
    ({ mediaType, answers }) => `  readonly ${quoted(mediaType)}: ${textOfAnswers(answers, lowered, context)};\n`,
  );
  return `${comment(sentences.answersByType(names.call))}export interface ${names.answers} {\n${rows.join("")}}\n`;
}
