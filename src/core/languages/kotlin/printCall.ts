import { argumentWords, callWords } from "../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import { sentences } from "../../sdk/lower/sentences.js";
import type { BodyWay } from "../../sdk/lower/request.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";
import { pascalCase } from "../../text/words.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { FileContext, RestContext } from "./contractContext.js";
import { comment, deprecation, docComment } from "./escape.js";
import { spelled } from "./identifiers.js";
import { withArguments } from "./kotlinFile.js";
import { argumentName } from "./names.js";
import { besideNested } from "./nestedNames.js";
import { answerShape, printAnswer, usualAnswer, type AnswerShape } from "./printAnswer.js";
import { printFailure } from "./printFailure.js";
import { printHeaders } from "./printHeaders.js";
import { printPages } from "./printPages.js";
import { printReading } from "./printReading.js";
import { bodyText, printRequest } from "./printRequest.js";
import { orNull, printReference } from "./printType.js";
import { fitsOneMethod } from "./slots.js";

type Context = RestContext & FileContext;

/** Prints a call with everything that comes with it, each as a part of a file. */
export function printRestCall(lowered: LoweredCall, context: Context): string[] {
  const { call } = lowered;
  const names = context.names.call(call);
  const usual = usualAnswer(lowered, context);
  const [choice, ...others] = lowered.answersByType;
  const accept = choice ? choice.mediaType : lowered.request.accept;
  const ways = lowered.request.body?.ways ?? [];
  const functions = (way: Way): string[] => [
    printFunction(lowered, way, context),
    ...(ways.length > 1 ? [printFunction(lowered, { ...way, anyBody: true }, context)] : []),
  ];
  const way: Way = { name: names.call, answer: usual, reading: names.reading, accept };
  const answeredAs = others.flatMap(({ mediaType, answers }) => {
    const own = names.answeredAs.get(mediaType);
    const responses = call.answerChoices.find((each) => each.mediaType === mediaType)?.answers ?? [];
    if (!own) return [];
    const answer = answerShape(responses, answers, { name: own.answer, context });
    return [
      ...functions({ name: own.call, answer, reading: own.reading, accept: mediaType }),
      printAnswer(call, answers, answer, context),
      printReading({ ...lowered, answers }, { name: own.reading, answer }, context),
    ];
  });
  return [
    ...functions(way),
    printPages(lowered, context),
    printArguments(lowered, context),
    ...answeredAs,
    printBodies(lowered, context),
    printAnswer(call, lowered.answers, usual, context),
    printHeaders(lowered, context),
    printFailure(lowered, context),
    printReading(lowered, { name: names.reading, answer: usual }, context),
  ].filter((part) => part !== "");
}

/** One of the functions that perform a call. */
interface Way {
  readonly name: string;
  readonly answer: AnswerShape;
  readonly reading: string;
  readonly accept: string | undefined;
  /** The body is given with the media type that it is sent in. */
  readonly anyBody?: boolean;
}

/** The parameters of a call: by name, the body behind them, the options at the end. */
export function parametersOf(lowered: LoweredCall, context: Context, bodyType?: string): string[] {
  const options = `options: ${context.uses.wire("CallOptions")} = ${context.uses.wire("CallOptions")}()`;
  if (hasTooMany(lowered, context)) {
    const type = context.names.call(lowered.call).args;
    const mayLack = lowered.call.arguments.every(({ required, standing }) => !required || standing);
    return [`arguments: ${type}${mayLack ? ` = ${type} {}` : ""}`, options];
  }
  return [...givenArguments(lowered).map((argument) => parameterText(argument, context, bodyType)), options];
}

/** Whether a call has more arguments than a method can have parameters: then they are the properties of one. */
export function hasTooMany({ call }: LoweredCall, context: Context): boolean {
  const types = call.arguments.map((argument) => argumentType(argument, context));
  return !fitsOneMethod([...types, "Connection", "CallOptions", "Continuation"]);
}

function givenArguments({ call }: LoweredCall): PlannedArgument[] {
  const given = call.arguments.filter(({ source }) => source.kind === "parameter");
  return [...sortedBy(given, argumentName), ...call.arguments.filter(({ source }) => source.kind === "body")];
}

function argumentType(argument: PlannedArgument, context: Context, bodyType?: string): string {
  const type = argument.source.kind === "body" && bodyType ? bodyType : printReference(argument.type, context);
  return argument.required && !argument.standing ? type : orNull(type);
}

function parameterText(argument: PlannedArgument, context: Context, bodyType?: string): string {
  const name = spelled(argumentName(argument));
  const isNeeded = argument.required && !argument.standing;
  return `${name}: ${argumentType(argument, context, bodyType)}${isNeeded ? "" : " = null"}`;
}

const primitives: Readonly<Record<string, string>> = { Int: "0", Long: "0L", Double: "0.0", Boolean: "false" };

/** Prints the class that holds the arguments of a call which has too many of them; "" for any other. */
function printArguments(lowered: LoweredCall, context: Context): string {
  if (!hasTooMany(lowered, context)) return "";
  const { args, call } = context.names.call(lowered.call);
  const lines = givenArguments(lowered).map((argument) => {
    const type = argumentType(argument, context);
    const isNeeded = argument.required && !argument.standing && !type.endsWith("?");
    const start = isNeeded ? primitives[type] : "null";
    const doc = docComment({ paragraphs: argumentWords(argument, argument.type).paragraphs }, "    ");
    return `${doc}    public ${start === undefined ? "lateinit " : ""}var ${spelled(argumentName(argument))}: ${type}${start === undefined ? "" : ` = ${start}`}\n`;
  });
  return `${comment(sentences.arguments(call), sentences.manyProperties)}public class ${args}(fill: ${args}.() -> Unit) {\n${lines.join("\n")}\n    init {\n        fill()\n    }\n}\n`;
}

/** What a call gives, with its failure beside it where failures are returned. */
export function resultType(type: string, isStream: boolean, failure: string, { contract, uses }: FileContext): string {
  const one = contract.settings.failures === "return" ? `${uses.wire("Outcome")}<${type}, ${failure}>` : type;
  return isStream ? `${uses.other("kotlinx.coroutines.flow.Flow")}<${one}>` : one;
}

/** A line of a comment that begins with a tag of our own; none where nothing is said. */
export function commentLine(tag: string, said: readonly (string | undefined)[]): string[] {
  const words = said.map((each) => each?.trim().replace(/\s+/g, " ") ?? "").filter((each) => each !== "");
  const [, safe] = /^\/\*\* (.*) \*\/\n$/.exec(docComment({ paragraphs: [words.join(" ")] })) ?? [];
  return safe === undefined ? [] : [`${tag} ${safe}`];
}

/** A doc comment that tells of the parameters too. */
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

function printFunction(lowered: LoweredCall, way: Way, context: Context): string {
  const { call, request, isStream } = lowered;
  const names = context.names.call(call);
  const { uses } = context;
  const parameters = parametersOf(lowered, context, way.anyBody ? names.body : undefined);
  const streams = isStream && way.name === names.call;
  const usual = request.body?.ways[0];
  const argument = request.body?.argument;
  const value = argument ? spelled(argumentName(argument)) : "";
  const mayLack = argument?.required === false;
  const chosen = mayLack
    ? `${value}?.let { ${bodyFunction(names.body)}(it) }`
    : `${bodyFunction(names.body)}(${value})`;
  const body = way.anyBody ? chosen : usual && bodyText(usual, { value, mayLack }, context);
  const performed = `${uses.wire(streams ? "receive" : "send")}(\n        ${printRequest(lowered, { body, accept: way.accept, self: hasTooMany(lowered, context) ? way.name : undefined }, context)},\n        options,\n        ${way.reading},\n    )`;
  const result = resultType(way.answer.type, streams, names.failure, context);
  const returns = context.contract.settings.failures === "return";
  const whole = hasTooMany(lowered, context)
    ? `arguments.run {\n        ${performed.replace(/\n/g, "\n    ")}\n    }`
    : performed;
  const given = !returns
    ? whole
    : streams
      ? `${uses.wire("settledItems")}(${whole})`
      : `${uses.wire("settled")} { ${whole} }`;
  const start = `public ${streams ? "" : "suspend "}fun ${context.names.contract.connection}.${spelled(way.name)}`;
  const signature = `${withArguments(start, parameters, `: ${result} =`)}\n    ${given}\n`;
  return `${callDoc(lowered, callWords(call), context)}${deprecation(call.operation.deprecated)}${signature}`;
}

/** The function that makes of a body what is sent. */
function bodyFunction(type: string): string {
  return `write${type}`;
}

/** Prints what a call takes as its body where it can be sent in several media types; "" where there is no choice. */
function printBodies(lowered: LoweredCall, context: Context): string {
  const ways = lowered.request.body?.ways ?? [];
  if (ways.length < 2) return "";
  const { body: name, call } = context.names.call(lowered.call);
  const classes = ways.map((way) => ({ way, name: mediaTypeClass(way) }));
  const nested = classes.map((each) => each.name);
  const members = classes.map(({ way, name: own }) => {
    const type = besideNested(printReference(way.type, context), nested, context);
    return `    /** Sent as \`${way.mediaType.replace(/[^\w./+*;= -]/g, "")}\`. */\n    public data class ${own}(public val value: ${type}) : ${name}\n`;
  });
  const rows = classes.map(
    ({ way, name: own }) =>
      `        is ${name}.${own} -> ${bodyText(way, { value: "body.value", mayLack: false }, context)}\n`,
  );
  return (
    `${comment(sentences.bodiesByType(call))}public sealed interface ${name} {\n${members.join("\n")}}\n\n` +
    `private fun ${bodyFunction(name)}(body: ${name}): ${context.uses.wire("Body")}? =\n    when (body) {\n${rows.join("")}    }\n`
  );
}

function mediaTypeClass({ mediaType }: BodyWay): string {
  const name = pascalCase(mediaType);
  return /^\p{L}/u.test(name) ? name : `As${name}`;
}
