import type { LoweredCall, LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { fakeReply, wayToReply } from "../../fakeReply.js";
import { bodyType, isWords } from "../calls/bodyForm.js";
import type { ContractContext, GraphqlContext, RestContext } from "../contractContext.js";
import { comment, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { usualAnswer } from "../calls/printAnswer.js";
import { connectionParameters } from "../calls/printConnection.js";
import { orNil, printForm, printReference } from "../types/printType.js";
import { statusCase } from "../calls/statusCase.js";
import { indented } from "../../indented.js";
import { listed } from "../swiftFile.js";

/** The fake of one call. */
interface Fake {
  /** The call's name in requests, without the contract's name. */
  readonly label: string;
  readonly property: string;
  readonly type: string;
  /** Statements that make a reply from `fake(request)`. */
  readonly reply: readonly string[];
  /** The failures that it can be made to return; "" if the contract declares none. */
  readonly fails: string;
}

/** Prints a connection that responds without a server, and the failures that its calls can be made to return. */
export function printFakes(context: RestContext | GraphqlContext): string[] {
  const { contract, connection, space } = context;
  const fakes =
    contract.protocol === "rest"
      ? contract.calls.map((lowered) => restFake(lowered, { ...context, contract }))
      : contract.calls.map((lowered) => graphqlFake(lowered, { ...context, contract }));
  const sorted = sortedBy(fakes, ({ property }) => property);
  const fails = sorted.flatMap((each) => (each.fails === "" ? [] : [each.fails]));
  return [
    `extension ${connection} {\n${indented(printStruct(sorted, context))}\n${printFunction(context)}}\n`,
    ...(fails.length === 0 ? [] : [`extension ${space} {\n${indented(fails.join("\n"))}}\n`]),
  ];
}

function printStruct(fakes: readonly Fake[], { access, contract, wire }: ContractContext): string {
  const properties = fakes.map(
    ({ property, type }) =>
      `  ${access}var ${spelled(property)}: (@Sendable (${wire}.FakeRequest) async throws -> ${type})?\n`,
  );
  const rows = fakes.map(
    ({ label, property, reply }) =>
      `    if let fake = self.${spelled(property)} {\n      all[${quoted(label)}] = { request in\n${reply.map((line) => `        ${line}\n`).join("")}      }\n    }\n`,
  );
  const all =
    rows.length === 0
      ? "    [:]\n"
      : `    var all: [Swift.String: ${wire}.FakeCall] = [:]\n${rows.join("")}    return all\n`;
  return (
    `${comment("", sentences.fakes(contract.plan.title))}${access}struct Fakes: Swift.Sendable {\n${properties.join("")}\n  ${access}init() {}\n\n` +
    `  var calls: [Swift.String: ${wire}.FakeCall] {\n${all}  }\n}\n`
  );
}

function printFunction(context: RestContext | GraphqlContext): string {
  const { access, connection, wire } = context;
  const parameters = connectionParameters(context).filter(({ name }) => !["baseURL", "servers"].includes(name));
  const given = [
    'baseURL: "https://fake.test"',
    ...parameters.map(({ name }) =>
      name === "settings" ? "settings: settings.answered(by: server.layer)" : `${name}: ${spelled(name)}`,
    ),
  ];
  const labels = parameters.map(
    ({ name, type, fallback }) => `${spelled(name)}: ${type}${fallback === undefined ? "" : ` = ${fallback}`}`,
  );
  return (
    `${comment("  ", sentences.fake)}${listed(`  ${access}static func fake`, ["_ fakes: Fakes = .init()", ...labels], ` -> ${wire}.FakeConnection<${connection}> {`)}\n` +
    `    let server = ${wire}.FakeServer(fakes.calls)\n` +
    `${listed(
      `    let connection = ${connection}`,
      sortedBy(given, (each) => each),
      "",
    )}\n` +
    `    return ${wire}.FakeConnection(connection: connection, server: server)\n  }\n`
  );
}

function restFake(lowered: LoweredCall, context: RestContext): Fake {
  const { call, answers, label, isStream } = lowered;
  const names = context.names.call(call);
  const shape = usualAnswer(lowered, context);
  const replies = shape.responses.map((response, at) => {
    const type = answers[at] && bodyType(response, answers[at], context);
    return {
      own: statusCase(response.status),
      has: type !== undefined,
      isNullable: type?.endsWith("?") === true,
      reply: (value: string) => replyText(response, answers[at], { value, context }),
    };
  });
  const isNothing = shape.type === "Swift.Void";
  const type = isStream && !isNothing ? `[${shape.type.replace(/\?$/, "")}]` : shape.type;
  const way = wayToReply(replies, { isSeveral: shape.kind === "several", isStream, admitsNull: type.endsWith("?") });
  const statements = (): string[] => {
    switch (way.kind) {
      case "cases": {
        const rows = replies.map(
          ({ own, has, reply }) => `case .${own}${has ? "(let value)" : ""}: return ${reply("value")}`,
        );
        return ["switch try await fake(request) {", ...rows, "}"];
      }
      case "items":
        return [
          "let all = try await fake(request)",
          `let answer = all.compactMap { item in if case .${way.reply.own}(let value) = item { value } else { nil } }`,
          `return ${way.reply.reply("answer")}`,
        ];
      case "nothing":
        return ["try await fake(request)", `return ${way.reply?.reply("") ?? `${context.wire}.fakeNothing(204)`}`];
      case "one":
        return [
          way.ofNull
            ? `guard let answer = try await fake(request) else { return ${way.ofNull.reply("nil")} }`
            : "let answer = try await fake(request)",
          `return ${way.reply.reply("answer")}`,
        ];
    }
  };
  return {
    label: label.slice(label.indexOf(".") + 1),
    property: names.call,
    type,
    reply: statements(),
    fails: restFails(lowered, context),
  };
}

function replyText(
  response: PlannedResponse,
  reading: StatusReading | undefined,
  {
    value,
    context,
    otherwise,
  }: { readonly value: string; readonly context: ContractContext; readonly otherwise?: number },
): string {
  const { wire } = context;
  const made = fakeReply(response, reading, otherwise);
  const { status } = made;
  if (made.kind === "nothing") return `${wire}.fakeNothing(${status})`;
  const mediaType = quoted(made.mediaType);
  if (made.kind === "bytes") return `${wire}.fakeBytes(${status}, ${mediaType}, ${value})`;
  const isPlain = made.kind === "text" && !isWords(made.type, context);
  const writer = isPlain ? `${wire}.writeText` : printForm(made.type, "write", context);
  if (made.kind === "text") return `${wire}.fakeText(${status}, ${mediaType}, ${writer}(${value}))`;
  if (made.kind !== "items") return `${wire}.fakeJSON(${status}, ${mediaType}, ${writer}(${value}))`;
  return `${wire}.fakeItems(${status}, ${mediaType}, .${made.as}, ${value}.map(${writer}))`;
}

function restFails({ call, failures }: LoweredCall, context: RestContext): string {
  const names = context.names.call(call);
  const { access, wire } = context;
  const functions = call.failures.map((response, at) => {
    const reading = failures[at];
    const type = reading && bodyType(response, reading, context);
    const reply = replyText(response, reading, { value: "body", context, otherwise: 500 });
    return `  ${access}static func ${statusCase(response.status)}(${type === undefined ? "" : `_ body: ${type}`}) -> ${wire}.FakeFailure {\n    ${wire}.FakeFailure(reply: ${reply})\n  }\n`;
  });
  return functions.length === 0 ? "" : printFails(names.fails, { call: names.call, functions }, context);
}

function printFails(
  name: string,
  { call, functions }: { readonly call: string; readonly functions: readonly string[] },
  { access }: ContractContext,
): string {
  return `${comment("", sentences.fakeFailures(call))}${access}enum ${name} {\n${functions.join("\n")}}\n`;
}

function graphqlFake({ call, label, isStream }: LoweredGraphqlCall, context: GraphqlContext): Fake {
  const names = context.names.call(call);
  const { access, wire } = context;
  const answer = printReference(call.answer, context);
  const writer = printForm(call.answer, "write", context);
  const reply = isStream ? `${wire}.fakeResults(answer.map(${writer}))` : `${wire}.fakeData(${writer}(answer))`;
  const errors = `  ${access}static func errors(\n    _ messages: [Swift.String], data: ${orNil(answer)} = nil\n  ) -> ${wire}.FakeFailure {\n    ${wire}.FakeFailure(reply: ${wire}.fakeErrors(messages, data.map(${writer})))\n  }\n`;
  return {
    label: label.slice(label.indexOf(".") + 1),
    property: names.call,
    type: isStream ? `[${answer}]` : answer,
    reply: ["let answer = try await fake(request)", `return ${reply}`],
    fails: printFails(names.fails, { call: names.call, functions: [errors] }, context),
  };
}
