import { argumentWords, callWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { BodyWay } from "../../../sdk/lower/request.js";
import { pascalCase } from "../../../text/words.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { argumentType, callDoc, givenArguments, hasTooMany, parametersOf, resultType } from "./callSignature.js";
import { comment, deprecation, docComment } from "../names/escape.js";
import { filledClass } from "../types/filledClass.js";
import { spelled } from "../names/identifiers.js";
import { withArguments } from "../kotlinFile.js";
import { argumentName } from "../names/names.js";
import { besideNested } from "../names/nestedNames.js";
import { answerShape, printAnswer, usualAnswer, type AnswerShape } from "./printAnswer.js";
import { printFailure } from "./printFailure.js";
import { printHeaders } from "./printHeaders.js";
import { printPages } from "./printPages.js";
import { printReading } from "./printReading.js";
import { bodyText, printRequest } from "./printRequest.js";
import { printReference } from "../types/printType.js";

type Context = RestContext & FileContext;

/** Prints a call with all its declarations, each as a part of a file. */
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
      printAnswer(call, answers, { shape: answer, context }),
      printReading({ ...lowered, answers }, { name: own.reading, answer }, context),
    ];
  });
  return [
    ...functions(way),
    printPages(lowered, context),
    printArguments(lowered, context),
    ...answeredAs,
    printBodies(lowered, context),
    printAnswer(call, lowered.answers, { shape: usual, context }),
    printHeaders(lowered, context),
    printFailure(lowered, context),
    printReading(lowered, { name: names.reading, answer: usual }, context),
  ].filter((part) => part !== "");
}

/** One of the functions that make a call. */
interface Way {
  readonly name: string;
  readonly answer: AnswerShape;
  readonly reading: string;
  readonly accept: string | undefined;
  /** Whether the body is given together with its media type. */
  readonly anyBody?: boolean;
}

/** Prints the class for the arguments of a call with too many of them; "" for any other. */
function printArguments(lowered: LoweredCall, context: Context): string {
  if (!hasTooMany(lowered, context)) return "";
  const { args, call } = context.names.call(lowered.call);
  const properties = givenArguments(lowered).map((argument) => {
    const type = argumentType(argument, context);
    const doc = docComment({ paragraphs: argumentWords(argument, argument.type).paragraphs }, "    ");
    return { doc, name: argumentName(argument), type, fallback: type.endsWith("?") ? "null" : undefined };
  });
  return filledClass({ name: args, words: [sentences.arguments(call)] }, properties, context);
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
  const result = resultType(way.answer.type, streams, { failure: names.failure, fileContext: context });
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
  const signature = `${withArguments(start, parameters, { after: `: ${result} =` })}\n    ${given}\n`;
  return `${callDoc(lowered, callWords(call), context)}${deprecation(call.operation.deprecated)}${signature}`;
}

/** The function that writes a body. */
function bodyFunction(type: string): string {
  return `write${type}`;
}

/** Prints the type of a body that can be sent in several media types; "" if there is no choice. */
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
