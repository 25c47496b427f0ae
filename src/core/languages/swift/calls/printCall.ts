import { callWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { bodyCases } from "./bodyCases.js";
import { callDoc, parametersOf, resultText } from "./callSignature.js";
import type { RestContext } from "../contractContext.js";
import { comment, deprecation } from "../names/escape.js";
import { freeName } from "../names/freeName.js";
import { spelled } from "../names/identifiers.js";
import { argumentName } from "../names/names.js";
import { answerShape, printAnswer, usualAnswer, type AnswerShape } from "./printAnswer.js";
import { printFailure } from "./printFailure.js";
import { printHeaders } from "./printHeaders.js";
import { printPages } from "./printPages.js";
import { printReading } from "./printReading.js";
import { bodyText, printRequest } from "./printRequest.js";
import { printReference } from "../types/printType.js";
import { listed } from "../swiftFile.js";

/** The printed parts of a call. */
export interface PrintedCall {
  /** The functions of the connection. */
  readonly functions: readonly string[];
  /** The types of the contract's namespace. */
  readonly types: readonly string[];
  /** The constants that describe how responses are read. */
  readonly readings: readonly string[];
  /** The functions that write bodies. */
  readonly forms: readonly string[];
}

/** Prints a call with all its declarations. */
export function printRestCall(lowered: LoweredCall, context: RestContext): PrintedCall {
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
  const answeredAs = others.flatMap(({ mediaType, answers }) => {
    const own = names.answeredAs.get(mediaType);
    const responses = call.answerChoices.find((each) => each.mediaType === mediaType)?.answers ?? [];
    if (!own) return [];
    const answer = answerShape(responses, answers, { name: own.answer, context });
    return [{ own, mediaType, answers, answer }];
  });
  const pages = printPages(lowered, context);
  const bodies = printBodies(lowered, context);
  return {
    functions: [
      ...functions({ name: names.call, answer: usual, reading: names.reading, accept }),
      ...(pages === "" ? [] : [pages]),
      ...answeredAs.flatMap(({ own, answer, mediaType }) =>
        functions({ name: own.call, answer, reading: own.reading, accept: mediaType }),
      ),
    ],
    types: [
      bodies.type,
      printAnswer(call, lowered.answers, { shape: usual, context }),
      ...answeredAs.map(({ answers, answer }) => printAnswer(call, answers, { shape: answer, context })),
      printHeaders(lowered, context),
      printFailure(lowered, context),
    ].filter((part) => part !== ""),
    readings: [
      printReading(lowered, { name: names.reading, answer: usual }, context),
      ...answeredAs.map(({ own, answers, answer }) =>
        printReading({ ...lowered, answers }, { name: own.reading, answer }, context),
      ),
    ],
    forms: bodies.form === "" ? [] : [bodies.form],
  };
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

function printFunction(lowered: LoweredCall, way: Way, context: RestContext): string {
  const { call, request, isStream } = lowered;
  const names = context.names.call(call);
  const { space, access } = context;
  const bodyType = way.anyBody ? `${space}.${names.body}` : undefined;
  const streams = isStream && way.name === names.call;
  const usual = request.body?.ways[0];
  const argument = request.body?.argument;
  const value = argument ? spelled(argumentName(argument)) : "";
  const mayLack = argument?.required === false;
  const chosen = `${space}.Forms.body${names.body}(${value})`;
  const given = way.anyBody
    ? mayLack
      ? `${value}.flatMap(${space}.Forms.body${names.body})`
      : chosen
    : usual && bodyText(usual, { value, mayLack }, context);
  const name = freeName("request", call.arguments.map(argumentName));
  const result = resultText(way.answer.type, streams, { failure: names.failure, contractContext: context });
  const reading = `${space}.Readings.${spelled(way.reading)}`;
  const isReturned = context.contract.settings.failures === "return";
  const performed = streams
    ? `    return self.wire.receive(${name}, options, ${reading})${isReturned ? ".outcomes" : ""}\n`
    : isReturned
      ? `    return await self.wire.outcome(${name}, options, ${reading})\n`
      : `    ${way.answer.type === "Swift.Void" ? "" : "return "}try await self.wire.send(${name}, options, ${reading})\n`;
  const signature = listed(
    `  ${access}func ${spelled(way.name)}`,
    parametersOf(lowered, context, bodyType),
    `${result} {`,
  );
  return (
    `${callDoc(lowered, callWords(call))}${deprecation(call.operation.deprecated, "  ")}${signature}\n` +
    `${printRequest(lowered, { name, body: given, accept: way.accept }, context)}${performed}  }\n`
  );
}

/** Prints the type and the writer of a body that can be sent in several media types. */
function printBodies(lowered: LoweredCall, context: RestContext): { readonly type: string; readonly form: string } {
  const ways = lowered.request.body?.ways ?? [];
  if (ways.length < 2) return { type: "", form: "" };
  const { body: name, call } = context.names.call(lowered.call);
  const cases = bodyCases(ways);
  const { access, space, wire } = context;
  const lines = cases.map(
    ({ way, name: own }) =>
      `  /// Sent as \`${way.mediaType.replace(/[^\w./+*;= -]/g, "")}\`.\n  case ${own}(${printReference(way.type, context)})\n`,
  );
  const rows = cases.map(
    ({ way, name: own }) =>
      `  case .${own}(let value): ${bodyText(way, { value: "value", mayLack: false }, context)}\n`,
  );
  return {
    type: `${comment("", sentences.bodiesByType(call))}${access}enum ${name}: Swift.Hashable, Swift.Sendable {\n${lines.join("")}}\n`,
    form: `static func body${name}(_ body: ${space}.${name}) -> ${wire}.Body? {\n  switch body {\n${rows.join("")}  }\n}\n`,
  };
}
