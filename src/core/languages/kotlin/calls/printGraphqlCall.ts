import type { Field } from "../../../contract/model.js";
import { graphqlCallWords, variableWords } from "../../../sdk/lower/documentation.js";
import type { LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext, GraphqlContext } from "../contractContext.js";
import { variablesRecord } from "../../variablesRecord.js";
import { comment, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled } from "../names/identifiers.js";
import { withArguments } from "../kotlinFile.js";
import { recordNames } from "../names/names.js";
import { commentLine, resultType } from "./callSignature.js";
import { printFailureClass } from "./printFailure.js";
import { filesOf } from "../filesOf.js";
import { fieldState, orNull, printFieldType, printForm, printReference, printShapeForm } from "../types/printType.js";

type Context = GraphqlContext & FileContext;

/**
 * Prints a GraphQL call with all its declarations, each as a part of a file. @param id its id for servers that accept
 * ids
 */
export function printGraphqlCall(lowered: LoweredGraphqlCall, context: Context, id: string | undefined): string[] {
  const answer = printReference(lowered.call.answer, context);
  return [
    printFunction(lowered, answer, context),
    printFailure(lowered, answer, context),
    printOperation(lowered, answer, { ...context, id }),
  ];
}

/** Returns the name of a variable as a parameter. */
export function variableName(field: Field, variables: readonly Field[]): string {
  return memberIdentifier(recordNames(variablesRecord(variables)).of(field), new Set(["options"]), "Value");
}

function printFunction(lowered: LoweredGraphqlCall, answer: string, context: Context): string {
  const { call, isStream } = lowered;
  const { uses } = context;
  const names = context.names.call(call);
  const variables = sortedBy(call.variables, (field) => variableName(field, call.variables));
  const parameters = variables.map((field) => {
    const state = fieldState(field, true, context);
    const type = printFieldType(field, state, context);
    const fallback = { required: "", optional: " = null", sent: " = Sent.Absent" };
    return `${spelled(variableName(field, call.variables))}: ${type}${fallback[state]}`;
  });
  const options = uses.wire("CallOptions");
  const told = variables.flatMap((field) => {
    const { paragraphs } = variableWords(field);
    return commentLine(`@param ${variableName(field, call.variables)}`, paragraphs);
  });
  const returns = context.contract.settings.failures === "return";
  const tags = returns ? told : [...told, `@throws ${names.failure}`];
  const given = `\n        ${names.operation},\n        ${variablesText(call.variables, context)},\n        options,\n    `;
  const performed = isStream
    ? returns
      ? `${uses.wire("subscribeOutcomes")}<${answer}, ${names.failure}>(${given})`
      : `${uses.wire("subscribe")}(${given})`
    : returns
      ? `${uses.wire("settled")} { ${uses.wire("execute")}(${given}) }`
      : `${uses.wire("execute")}(${given})`;
  const start = `public ${isStream ? "" : "suspend "}fun ${context.names.contract.connection}.${spelled(names.call)}`;
  const result = resultType(answer, isStream, { failure: names.failure, fileContext: context });
  return `${docComment(graphqlCallWords(call), "", tags)}${withArguments(start, [...parameters, `options: ${options} = ${options}()`], { after: `: ${result} =` })}\n    ${performed}\n`;
}

/** An expression for the variables to send. */
function variablesText(variables: readonly Field[], context: Context): string {
  const { uses } = context;
  const record = uses.wire("writeRecord");
  if (variables.length === 0) return `${uses.wire("Variables")}(${record} {})`;
  const lines = variables.map((field) => {
    const state = fieldState(field, true, context);
    const form =
      state === "required"
        ? printForm(field.type, "write", context)
        : printShapeForm(field.type.shape, "write", context);
    return `                ${state}(${quoted(field.name)}, ${spelled(variableName(field, variables))}, ${form})\n`;
  });
  const files = variables.flatMap((field) => {
    const name = spelled(variableName(field, variables));
    const text = filesOf(field, { value: name, isSent: fieldState(field, true, context) === "sent" }, context);
    return text === undefined ? [] : [`                ${text}\n`];
  });
  const collected = files.length === 0 ? "" : `            files = buildMap {\n${files.join("")}            },\n`;
  return `${uses.wire("Variables")}(\n            ${record} {\n${lines.join("")}            },\n${collected}        )`;
}

function printFailure({ call }: LoweredGraphqlCall, answer: string, context: Context): string {
  const names = context.names.call(call);
  const { uses } = context;
  const type = answer.replace(/(?<![\w.])(Errors|Other)(?!\w)/g, `${context.package}.$1`);
  const errors =
    `    /** ${sentences.resultErrors} */\n    public class Errors internal constructor(\n        report: ${uses.wire("Report")},\n` +
    `        public val errors: List<${uses.wire("GraphqlError")}>,\n        /** ${sentences.partialData} */\n        public val data: ${orNull(type)},\n    ) : ${names.failure}(report)\n`;
  const doc = comment(sentences.graphqlFailures(names.call));
  return printFailureClass(doc, names.failure, { classes: [errors], fileContext: context });
}

function printOperation(
  { call, label }: LoweredGraphqlCall,
  answer: string,
  context: Context & { readonly id: string | undefined },
): string {
  const { uses, id } = context;
  const names = context.names.call(call);
  const kind = { query: "Query", mutation: "Mutation", subscription: "Subscription" }[call.operation.root];
  const fields = [
    `kind = ${uses.wire("OperationKind")}.${kind}`,
    `name = ${quoted(call.operation.name)}`,
    `call = ${quoted(label)}`,
    `text = ${textOf(call.operation.text)}`,
    ...(id === undefined ? [] : [`id = ${quoted(id)}`]),
    `answer = ${printForm(call.answer, "read", context)}`,
    `errors = ${names.failure}::Errors`,
    `other = ${names.failure}::Other`,
  ];
  return `private object ${names.operation} : ${uses.wire("Operation")}<${answer}>(\n${fields.map((field) => `    ${field},\n`).join("")})\n`;
}

/** Longer texts are one line: a compiler is slow with long sums. */
const mostLines = 100;

/** The text of an operation, line by line. */
function textOf(text: string): string {
  const lines = text.split("\n");
  if (lines.length > mostLines) return quoted(text);
  return lines
    .map((line, at) => quoted(at < lines.length - 1 ? `${line}\n` : line))
    .filter((line, at) => line !== '""' || at === 0)
    .join(" +\n        ");
}
