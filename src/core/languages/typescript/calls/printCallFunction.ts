import { callWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { docComment, quoted } from "../names/escape.js";
import { answerType } from "./printAnswer.js";
import { printRequest } from "./printRequest.js";
import { resultType, returnsFailures } from "./printResult.js";

/** The signature of a call, as far as all its forms have it in common. */
export interface CallSignature {
  /** Type parameters with their brackets; "" if there are none. */
  readonly generics: string;
  readonly argsType: string;
  readonly argsNeeded: boolean;
}

/** Returns the signature of a call's function: its type parameters and the type of its arguments. */
export function callSignature({ call }: LoweredCall, { names }: RestContext): CallSignature {
  const { args, answers } = names.rest(call);
  const [usual] = call.answerChoices;
  const own = call.arguments.length === 0 ? undefined : args;
  const argsNeeded = call.arguments.some((argument) => argument.required);
  if (!usual) return { generics: "", argsType: own ?? noArguments, argsNeeded };
  const choice = "{ readonly answerType?: Type | undefined }";
  return {
    generics: `<Type extends keyof ${answers} = ${quoted(usual.mediaType)}>`,
    argsType: own === undefined ? choice : `${own} & ${choice}`,
    argsNeeded,
  };
}

const noArguments = "wire.NoArguments";

/** Prints the function of a call. */
export function printCallFunction(lowered: LoweredCall, context: RestContext): string {
  const { call, isStream } = lowered;
  const names = context.names.rest(call);
  const answer = answerType(lowered, context);
  const { generics, argsType, argsNeeded } = callSignature(lowered, context);
  const argsParameter =
    argsType === noArguments ? `_args?: ${noArguments}` : `args: ${argsType}${argsNeeded ? "" : " = {}"}`;
  const doc = docComment(callWords(call));
  const { before, fields } = printRequest(lowered, context);
  const type = generics === "" ? answer : `${names.answers}[Type]`;
  const performed = `wire.${isStream ? "receive" : "send"}<${type}>(\n    connection,\n    {\n${fields.map((field) => `      ${field},\n`).join("")}    },\n    options,\n  )`;
  const returned = returnsFailures(context) ? `wire.${isStream ? "settledItems" : "settled"}(${performed})` : performed;
  const body = [...before, `  return ${returned};`].join("\n");
  const signature = `${generics}(\n  connection: ${context.names.contract.connection},\n  ${argsParameter},\n  options?: wire.CallOptions,\n): ${resultType(type, isStream, { failure: names.failure, context })}`;
  if (call.operation.deprecated === undefined) return `${doc}export function ${names.call}${signature} {\n${body}\n}\n`;
  return (
    `/** The implementation of \`${names.call}\`. It is not deprecated itself, so that the grouped calls can use it. */\n` +
    `export function ${names.perform}${signature} {\n${body}\n}\n\n${doc}export const ${names.call}: typeof ${names.perform} = ${names.perform};\n`
  );
}
