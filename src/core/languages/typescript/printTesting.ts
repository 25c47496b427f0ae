import type { Reference } from "../../contract/model.js";
import type { ContractPlan, GraphqlCall, RestCall } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { docComment, propertyName, quoted } from "./escape.js";
import { contractNames } from "./identifiers.js";
import { graphqlCallNames } from "./printGraphqlCall.js";
import { answerType, isStreaming, readAs, restCallNames } from "./printRestCall.js";
import { conversionOf, needsExact } from "./printConversions.js";
import { printSamples } from "./printSamples.js";
import { printReference, type TypePrinter } from "./printType.js";

/** The text of a contract's module for tests, and the types it needs from the modules of calls. */
export interface PrintedTesting {
  readonly text: string;
  /** Names of types by the call they belong to. */
  readonly callTypes: ReadonlyMap<string, readonly string[]>;
}

interface FakeCall {
  /** As failures and requests name it. */
  readonly name: string;
  readonly call: string;
  readonly answer: string;
  readonly failure: string;
  readonly written: readonly string[];
  readonly types: readonly string[];
}

/** Prints the fake connection of a contract, typed by its calls, and the builders of samples. */
export function printTesting(plan: ContractPlan, printer: TypePrinter): PrintedTesting {
  const names = contractNames(plan.name);
  const calls =
    plan.protocol === "rest"
      ? plan.calls.map((call) => restFake(call, printer))
      : plan.calls.map((call) => graphqlFake(call, printer));
  const sorted = sortedBy(calls, ({ name }) => name);
  const fields = sorted.map(
    ({ name, answer, failure }) => `  readonly ${propertyName(name)}?: wire.Fake<${answer}, ${failure}>;\n`,
  );
  const rows = sorted.map(({ name, written }) => `      ${propertyName(name)}: { ${written.join(", ")} },\n`);
  const isStanding = plan.protocol === "rest" && plan.standing.length > 0;
  const options = `options: Omit<${names.options}, "baseUrl" | "fetch">${isStanding ? "" : " = {}"}`;
  const fakes =
    docComment([`What a fake connection to ${plan.title} answers, by call.`]) +
    (fields.length === 0
      ? `export type ${names.fakes} = Readonly<Record<string, never>>;\n`
      : `export interface ${names.fakes} {\n${fields.join("")}}\n`) +
    "\n" +
    docComment([
      "A connection for tests: it answers by itself, without a server, and keeps what it was asked.\nA call that is given no answer fails.",
    ]) +
    `export function ${names.fake}(\n  fakes: ${names.fakes},\n  ${options},\n): wire.FakeConnection<${names.connection}> {\n` +
    `  const server = wire.fakeServer(\n    { ...fakes },\n    {\n${rows.join("")}    },\n  );\n` +
    `  const connection = ${names.connect}({\n    ...options,\n    baseUrl: "https://fake.test",\n    around: [...(options.around ?? []), server.layer],\n  });\n` +
    "  return { connection, requests: server.requests };\n}\n";
  return {
    text: [fakes, printSamples(plan.types, printer)].filter((part) => part !== "").join("\n"),
    callTypes: new Map(sorted.map(({ call, types }) => [call, types])),
  };
}

function restFake(call: RestCall, printer: TypePrinter): FakeCall {
  const names = restCallNames(call);
  // Printing a name makes it an import, which what a type of the call's own is made of must not become.
  const answer = answerType(call, { ...printer, onUse: () => undefined });
  const isOwn = answer === names.answer && !isShape(call, printer, answer);
  const chosen = call.answers.find(({ type }) => type !== undefined) ?? call.answers[0];
  const status = chosen === undefined ? 200 : Number(chosen.status.replace(/XX$/, "00").replace("default", "200"));
  const as = chosen ? readAs(chosen.form, chosen.type, printer) : "none";
  const hasChoice = call.answerChoices.length > 0;
  if (!isOwn && !hasChoice) answerType(call, printer);
  return {
    name: call.name,
    call: names.call,
    answer: isStreaming(call)
      ? `readonly ${wrapped(answer)}[]`
      : hasChoice
        ? `${names.answers}[keyof ${names.answers}]`
        : answer,
    failure: names.failure,
    written: [
      `status: ${String(status)}`,
      `as: ${quoted(as.startsWith("event") ? "events" : as)}`,
      ...(chosen?.mediaType === undefined || chosen.mediaType.includes("*")
        ? []
        : [`type: ${quoted(chosen.mediaType)}`]),
      ...(chosen?.type ? conversionFields(chosen.type, printer) : []),
    ],
    types: [names.failure, ...(hasChoice ? [names.answers] : isOwn ? [names.answer] : [])],
  };
}

/** Whether the answer's own name is that of a shared type, and not of one beside the call. */
function isShape(call: RestCall, printer: TypePrinter, answer: string): boolean {
  return call.answers.some(({ type }) => type?.shape.kind === "named" && printer.names.get(type.shape.key) === answer);
}

function wrapped(text: string): string {
  return /[ |&]/.test(text) ? `(${text})` : text;
}

function conversionFields(type: Reference, printer: TypePrinter): string[] {
  const conversion = conversionOf(type, printer);
  if (conversion === undefined) return [];
  return [`conversion: ${conversion}`, ...(needsExact(type, printer) ? ["stringify: wire.exactText"] : [])];
}

function graphqlFake(call: GraphqlCall, printer: TypePrinter): FakeCall {
  const names = graphqlCallNames(call);
  const whole = printReference(call.whole ?? call.answer, printer, "exact");
  const isStream = call.operation.root === "subscription";
  return {
    name: call.name.charAt(0).toLowerCase() + call.name.slice(1),
    call: names.call,
    answer: isStream ? `readonly ${wrapped(whole)}[]` : whole,
    failure: names.failure,
    written: [
      "status: 200",
      `as: ${quoted(isStream ? "graphqlEvents" : "graphql")}`,
      ...conversionFields(call.whole ?? call.answer, printer),
      ...(isStream ? ['type: "text/event-stream"'] : []),
    ],
    types: [names.failure],
  };
}
