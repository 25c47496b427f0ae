import { argumentWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { argumentName } from "../names/names.js";
import { orNull, printReference } from "../types/printType.js";
import { fitsOneMethod } from "../names/slots.js";

type Context = RestContext & FileContext;

/**
 * Returns the parameters of a call: sorted by name, then the body, then the options.
 *
 * @param bodyType the type of the body if its media type is a choice
 */
export function parametersOf(lowered: LoweredCall, context: Context, bodyType?: string): string[] {
  const options = `options: ${context.uses.wire("CallOptions")} = ${context.uses.wire("CallOptions")}()`;
  if (hasTooMany(lowered, context)) {
    const type = context.names.call(lowered.call).args;
    const mayLack = lowered.call.arguments.every(({ required, standing }) => !required || standing);
    const body = givenArguments(lowered).filter(({ source }) => bodyType !== undefined && source.kind === "body");
    return [
      `arguments: ${type}${mayLack ? ` = ${type} {}` : ""}`,
      ...body.map((argument) => parameterText(argument, context, bodyType)),
      options,
    ];
  }
  return [...givenArguments(lowered).map((argument) => parameterText(argument, context, bodyType)), options];
}

/**
 * Returns whether a call has more arguments than a method can have parameters. They then become properties of one
 * object.
 */
export function hasTooMany({ call }: LoweredCall, context: Context): boolean {
  const types = call.arguments.map((argument) => argumentType(argument, context));
  return !fitsOneMethod([...types, "Connection", "CallOptions", "Continuation"]);
}

/** Returns the arguments of a call in the order of its parameters. */
export function givenArguments({ call }: LoweredCall): PlannedArgument[] {
  const given = call.arguments.filter(({ source }) => source.kind === "parameter");
  return [...sortedBy(given, argumentName), ...call.arguments.filter(({ source }) => source.kind === "body")];
}

/**
 * Returns the type of an argument.
 *
 * @param bodyType the type of the body if its media type is a choice
 */
export function argumentType(argument: PlannedArgument, context: Context, bodyType?: string): string {
  const type = argument.source.kind === "body" && bodyType ? bodyType : printReference(argument.type, context);
  return argument.required && !argument.standing ? type : orNull(type);
}

function parameterText(argument: PlannedArgument, context: Context, bodyType?: string): string {
  const name = spelled(argumentName(argument));
  const isNeeded = argument.required && !argument.standing;
  return `${name}: ${argumentType(argument, context, bodyType)}${isNeeded ? "" : " = null"}`;
}

/** Returns the return type of a call, with its failure if failures are returned. */
export function resultType(
  type: string,
  isStream: boolean,
  { failure, fileContext: { contract, uses } }: { readonly failure: string; readonly fileContext: FileContext },
): string {
  const one = contract.settings.failures === "return" ? `${uses.wire("Outcome")}<${type}, ${failure}>` : type;
  return isStream ? `${uses.other("kotlinx.coroutines.flow.Flow")}<${one}>` : one;
}

/**
 * Returns a comment line with a tag of our own; nothing without words.
 *
 * @param said the parts of the line
 */
export function commentLine(tag: string, said: readonly (string | undefined)[]): string[] {
  const words = said.map((each) => each?.trim().replace(/\s+/g, " ") ?? "").filter((each) => each !== "");
  const [, safe] = /^\/\*\* (.*) \*\/\n$/.exec(docComment({ paragraphs: [words.join(" ")] })) ?? [];
  return safe === undefined ? [] : [`${tag} ${safe}`];
}

/** Returns a doc comment with the parameters. */
export function callDoc(
  lowered: LoweredCall,
  words: { readonly paragraphs: readonly (string | undefined)[] },
  context: Context,
): string {
  const { call } = lowered;
  const failure = context.names.call(call).failure;
  const safe = sortedBy(call.arguments, argumentName).flatMap((argument) => {
    const { paragraphs, deprecated } = argumentWords(argument, argument.type);
    const said = [...paragraphs, deprecated === undefined ? undefined : `Deprecated. ${deprecated}`];
    return commentLine(`@param ${argumentName(argument)}`, said);
  });
  const tags = context.contract.settings.failures === "return" ? safe : [...safe, `@throws ${failure}`];
  return docComment(words, "", tags);
}
