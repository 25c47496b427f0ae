import { sentences } from "../../../sdk/lower/sentences.js";
import type { GraphqlConversion, LoweredCall, LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { answerTypes } from "../types/answerTypes.js";
import type { ContractContext, GraphqlContext, RestContext } from "../contractContext.js";
import { comment, propertyName, quoted } from "../names/escape.js";
import { conversionText } from "../types/printConversions.js";
import { printSamples } from "./printSamples.js";
import { orInherited } from "../types/printShapes.js";
import { printReference, type TypePrinter } from "../types/printType.js";

/** The text of a contract's module for tests, and its imports from the modules of calls. */
export interface PrintedTesting {
  readonly text: string;
  /** The names of types by their call. */
  readonly callTypes: ReadonlyMap<string, readonly string[]>;
}

interface FakeCall {
  /** As in failures and requests. */
  readonly name: string;
  readonly call: string;
  readonly answer: string;
  readonly failure: string;
  readonly written: readonly string[];
  readonly types: readonly string[];
}

/** Prints the fake connection of a contract, typed by its calls, and the sample builders. */
export function printTesting(context: ContractContext): PrintedTesting {
  const { contract, printer } = context;
  const names = context.names.contract;
  const calls = fakesOf(context);
  const sorted = sortedBy(calls, ({ name }) => name);
  const fields = sorted.map(
    ({ name, answer, failure }) =>
      `  readonly ${propertyName(name)}?: wire.Fake<${answer}, ${failure}>${orInherited(name)};\n`,
  );
  // The compiler takes a property with such a name for the inherited one, and its value for any string.
  const exact = (name: string): string => (orInherited(name) === "" ? "" : " as const");
  const rows = sorted.map(
    ({ name, written }) => `      ${propertyName(name)}: { ${written.join(", ")} }${exact(name)},\n`,
  );
  const isStanding = contract.protocol === "rest" && contract.connection.standing.length > 0;
  const options = `options: Omit<${names.options}, "baseUrl" | "fetch">${isStanding ? "" : " = {}"}`;
  const fakes =
    comment(sentences.fakes(contract.plan.title)) +
    (fields.length === 0
      ? `export type ${names.fakes} = Readonly<Record<string, never>>;\n`
      : `export interface ${names.fakes} {\n${fields.join("")}}\n`) +
    "\n" +
    comment(sentences.fake) +
    `export function ${names.fake}(\n  fakes: ${names.fakes},\n  ${options},\n): wire.FakeConnection<${names.connection}> {\n` +
    `  const server = wire.fakeServer(\n    { ...fakes },\n    {\n${rows.join("")}    },\n  );\n` +
    `  const connection = ${names.connect}({\n    ...options,\n    baseUrl: "https://fake.test",\n    around: [...(options.around ?? []), server.layer],\n  });\n` +
    "  return { connection, requests: server.requests };\n}\n";
  return {
    text: [fakes, printSamples(contract, printer)].filter((part) => part !== "").join("\n"),
    callTypes: new Map(sorted.map(({ call, types }) => [call, types])),
  };
}

function fakesOf({ contract, ...context }: ContractContext): FakeCall[] {
  return contract.protocol === "rest"
    ? contract.calls.map((call) => restFake(call, { ...context, contract }))
    : contract.calls.map((call) => graphqlFake(call, { ...context, contract }));
}

function restFake(lowered: LoweredCall, context: RestContext): FakeCall {
  const { call, fake, isStream } = lowered;
  const names = context.names.rest(call);
  const { answer, types } = answerTypes(lowered, context);
  const hasChoice = call.answerChoices.length > 0;
  const { as } = fake.reading;
  return {
    name: call.name,
    call: names.call,
    answer: isStream
      ? `readonly ${wrapped(answer)}[]`
      : hasChoice
        ? `${names.answers}[keyof ${names.answers}]`
        : answer,
    failure: names.failure,
    written: [
      `status: ${String(fake.status)}`,
      `as: ${quoted(as.startsWith("event") ? "events" : as)}`,
      ...(fake.mediaType === undefined ? [] : [`type: ${quoted(fake.mediaType)}`]),
      ...conversionFields(fake.reading, context.printer),
    ],
    types: [names.failure, ...types],
  };
}

function wrapped(text: string): string {
  return /[ |&]/.test(text) ? `(${text})` : text;
}

function conversionFields({ conversion, isExact }: GraphqlConversion, printer: TypePrinter): string[] {
  if (!conversion) return [];
  return [`conversion: ${conversionText(conversion, printer)}`, ...(isExact ? ["stringify: wire.exactText"] : [])];
}

function graphqlFake({ call, label, answer, isStream }: LoweredGraphqlCall, context: GraphqlContext): FakeCall {
  const names = context.names.graphql(call);
  const whole = printReference(call.whole ?? call.answer, context.printer, "exact");
  return {
    name: label.slice(label.indexOf(".") + 1),
    call: names.call,
    answer: isStream ? `readonly ${wrapped(whole)}[]` : whole,
    failure: names.failure,
    written: [
      "status: 200",
      `as: ${quoted(isStream ? "graphqlEvents" : "graphql")}`,
      ...conversionFields(answer, context.printer),
      ...(isStream ? ['type: "text/event-stream"'] : []),
    ],
    types: [names.failure],
  };
}
