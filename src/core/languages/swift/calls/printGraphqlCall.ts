import type { Field } from "../../../contract/model.js";
import { graphqlCallWords, variableWords } from "../../../sdk/lower/documentation.js";
import type { LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { variablesRecord } from "../../variablesRecord.js";
import { resultText } from "./callSignature.js";
import type { GraphqlContext } from "../contractContext.js";
import { comment, docComment, multiline, parameterLines, quoted } from "../names/escape.js";
import { filesOf } from "../filesOf.js";
import { freeName } from "../names/freeName.js";
import { parameterIdentifier, spelled } from "../names/identifiers.js";
import { recordNames } from "../names/names.js";
import { printFailureEnum } from "./printFailure.js";
import { fieldState, printFieldType, printForm, printReference, printShapeForm } from "../types/printType.js";
import { listed } from "../swiftFile.js";

/** The printed parts of a GraphQL call. */
export interface PrintedGraphqlCall {
  readonly call: string;
  readonly failure: string;
  readonly operation: string;
}

/** Prints a GraphQL call with all its declarations. @param id its id for servers that accept ids */
export function printGraphqlCall(
  lowered: LoweredGraphqlCall,
  context: GraphqlContext,
  id: string | undefined,
): PrintedGraphqlCall {
  const answer = printReference(lowered.call.answer, context);
  return {
    call: printFunction(lowered, answer, context),
    failure: printFailure(lowered, answer, context),
    operation: printOperation(lowered, { answer, id }, context),
  };
}

/** Returns the name of a variable as a parameter. */
export function variableName(field: Field, variables: readonly Field[]): string {
  return parameterIdentifier(recordNames(variablesRecord(variables)).of(field));
}

function printFunction(lowered: LoweredGraphqlCall, answer: string, context: GraphqlContext): string {
  const { call, isStream } = lowered;
  const { access, space, wire } = context;
  const names = context.names.call(call);
  const variables = sortedBy(call.variables, (field) => variableName(field, call.variables));
  const fallback = { required: "", optional: " = nil", sent: " = .absent" };
  const parameters = variables.map((field) => {
    const state = fieldState(field, true, context);
    return `${spelled(variableName(field, call.variables))}: ${printFieldType(field, state, context)}${fallback[state]}`;
  });
  const told = variables.map((field) => ({
    name: variableName(field, call.variables),
    words: variableWords(field).paragraphs,
  }));
  const isReturned = context.contract.settings.failures === "return";
  const given = `(${space}.Operations.${spelled(names.call)}, ${variablesName(call.variables)}, options)`;
  const performed = isStream
    ? `return self.wire.subscribe${isReturned ? "Outcomes" : ""}${given}`
    : isReturned
      ? `return await self.wire.outcome${given}`
      : `return try await self.wire.execute${given}`;
  const signature = listed(
    `  ${access}func ${spelled(names.call)}`,
    [...parameters, `options: ${wire}.CallOptions = .init()`],
    `${resultText(answer, isStream, { failure: names.failure, contractContext: context })} {`,
  );
  return `${docComment(graphqlCallWords(call), "  ", parameterLines(told))}${signature}\n${variablesText(call.variables, context)}    ${performed}\n  }\n`;
}

function namesOf(variables: readonly Field[]): string[] {
  return variables.map((field) => variableName(field, variables));
}

/** The name of the variable with the variables to send. */
function variablesName(variables: readonly Field[]): string {
  return freeName("variables", namesOf(variables));
}

/** Statements that create the variables to send. */
function variablesText(variables: readonly Field[], context: GraphqlContext): string {
  const { wire } = context;
  const whole = variablesName(variables);
  if (variables.length === 0) return `    let ${whole} = ${wire}.Variables(json: .record([:]))\n`;
  const fields = freeName("fields", namesOf(variables));
  const lines = variables.map((field) => {
    const state = fieldState(field, true, context);
    const form =
      state === "required"
        ? printForm(field.type, "write", context)
        : printShapeForm(field.type.shape, "write", context);
    return `    ${fields}.${state}(${quoted(field.name)}, ${spelled(variableName(field, variables))}, ${form})\n`;
  });
  const files = variables.flatMap((field) => {
    const name = spelled(variableName(field, variables));
    const text = filesOf(field, fieldState(field, true, context) === "sent" ? `${name}.given` : name, context);
    return text === undefined ? [] : [`    ${whole}.files.${text}\n`];
  });
  const declares = files.length === 0 ? "let" : "var";
  return `    var ${fields} = ${wire}.FieldWriter()\n${lines.join("")}    ${declares} ${whole} = ${wire}.Variables(json: ${fields}.json)\n${files.join("")}`;
}

function printFailure({ call }: LoweredGraphqlCall, answer: string, context: GraphqlContext): string {
  const names = context.names.call(call);
  const errors = { words: sentences.resultErrors, name: "errors", type: `${context.wire}.ResultErrors<${answer}>` };
  return printFailureEnum(comment("", sentences.graphqlFailures(names.call)), names.failure, {
    cases: [errors],
    contractContext: context,
  });
}

function printOperation(
  { call, label }: LoweredGraphqlCall,
  { answer, id }: { readonly answer: string; readonly id: string | undefined },
  context: GraphqlContext,
): string {
  const { space, wire } = context;
  const names = context.names.call(call);
  const failure = `${space}.${names.failure}`;
  const fields = [
    `kind: .${call.operation.root}`,
    `name: ${quoted(call.operation.name)}`,
    `call: ${quoted(label)}`,
    `text: ${multiline(call.operation.text, "      ")}`,
    ...(id === undefined ? [] : [`id: ${quoted(id)}`]),
    `read: ${printForm(call.answer, "read", context)}`,
    `errors: ${failure}.errors`,
  ];
  return `  static let ${spelled(names.call)} = ${wire}.Operation<${answer}, ${failure}>(\n${fields.map((field) => `    ${field}`).join(",\n")}\n  )\n`;
}
