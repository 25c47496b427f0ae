import { argumentWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { ContractContext, RestContext } from "../contractContext.js";
import { docComment, parameterLines } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { argumentName } from "../names/names.js";
import { orNil, printReference } from "../types/printType.js";

/**
 * Returns the parameters of a call: sorted by name, then the body, then the options.
 *
 * @param bodyType the type of the body if its media type is a choice
 */
export function parametersOf(lowered: LoweredCall, context: RestContext, bodyType?: string): string[] {
  return [
    ...givenArguments(lowered).map((argument) => parameterText(argument, context, bodyType)),
    `options: ${context.wire}.CallOptions = .init()`,
  ];
}

/** Returns the arguments of a call in the order of its parameters. */
export function givenArguments({ call }: LoweredCall): PlannedArgument[] {
  const given = call.arguments.filter(({ source }) => source.kind === "parameter");
  return [...sortedBy(given, argumentName), ...call.arguments.filter(({ source }) => source.kind === "body")];
}

/** @param bodyType the type of the body if its media type is a choice */
function parameterText(argument: PlannedArgument, context: RestContext, bodyType?: string): string {
  const type = argument.source.kind === "body" && bodyType ? bodyType : printReference(argument.type, context);
  const isNeeded = argument.required && !argument.standing;
  return `${spelled(argumentName(argument))}: ${isNeeded ? type : `${orNil(type)} = nil`}`;
}

/** Returns the return type of a call, and the type of its errors. */
export function resultText(
  type: string,
  isStream: boolean,
  {
    failure,
    contractContext: { contract, space, wire },
  }: { readonly failure: string; readonly contractContext: ContractContext },
): string {
  const whole = `${space}.${failure}`;
  const isReturned = contract.settings.failures === "return";
  if (isStream) return ` -> ${wire}.${isReturned ? "Outcomes" : "Items"}<${type}, ${whole}>`;
  if (isReturned) return ` async -> Swift.Result<${type}, ${whole}>`;
  return ` async throws(${whole})${type === "Swift.Void" ? "" : ` -> ${type}`}`;
}

/** Returns a doc comment with the parameters. */
export function callDoc(lowered: LoweredCall, words: { readonly paragraphs: readonly (string | undefined)[] }): string {
  const parameters = givenArguments(lowered).map((argument) => {
    const { paragraphs, deprecated } = argumentWords(argument, argument.type);
    return {
      name: argumentName(argument),
      words: [...paragraphs, deprecated === undefined ? undefined : `Deprecated. ${deprecated}`],
    };
  });
  return docComment(words, "  ", parameterLines(parameters));
}
