import type { LoweredCall, LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { fakeReply, wayToReply } from "../../fakeReply.js";
import { bodyType, isWords } from "../calls/bodyForm.js";
import type { FileContext, GraphqlContext, RestContext } from "../contractContext.js";
import { comment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled, takenProperties } from "../names/identifiers.js";
import { usualAnswer } from "../calls/printAnswer.js";
import { connectionParameters } from "../calls/printConnection.js";
import { statusClass } from "../calls/statusClass.js";
import { orNull, printForm, printReference } from "../types/printType.js";

/** The fake of one call. */
interface Fake {
  /** The call's name in requests, without the contract's name. */
  readonly label: string;
  readonly property: string;
  readonly type: string;
  /** An expression that makes a reply from `fake(it)`. */
  readonly reply: string;
  /** The failures that it can be made to return; "" if the contract declares none. */
  readonly fails: string;
}

/** Prints a connection that responds without a server, and the failures that its calls can be made to return. */
export function printFakes(context: (RestContext | GraphqlContext) & FileContext): string[] {
  const { contract } = context;
  const fakes =
    contract.protocol === "rest"
      ? contract.files.flatMap(({ calls }) => calls.map((lowered) => restFake(lowered, { ...context, contract })))
      : contract.calls.map((lowered) => graphqlFake(lowered, { ...context, contract }));
  const sorted = sortedBy(fakes, ({ property }) => property);
  return [
    printClass(sorted, context),
    printFunction(context),
    ...sorted.flatMap(({ fails }) => (fails === "" ? [] : [fails])),
  ];
}

/** The largest number of calls in one method, because a method has at most 64 KB. */
const mostTogether = 200;

function printClass(fakes: readonly Fake[], { contract, names, uses }: FileContext): string {
  const request = uses.wire("FakeRequest");
  const call = uses.wire("FakeCall");
  const properties = fakes.map(
    ({ property, type }) => `    public var ${spelled(property)}: (suspend (${request}) -> ${type})? = null\n`,
  );
  const rows = fakes.map(
    ({ label, property, reply }) =>
      // A call can have the name of the parameter.
      `        into[${quoted(label)}] = this.${spelled(property)}?.let { fake ->\n            ${call} { ${reply} }\n        }\n`,
  );
  const groups: string[] = [];
  for (let from = 0; from < rows.length; from += mostTogether)
    groups.push(
      `    private fun add${String(groups.length)}(into: MutableMap<String, ${call}?>) {\n${rows.slice(from, from + mostTogether).join("")}    }\n`,
    );
  const all = groups.map((_, at) => `        add${String(at)}(this)\n`);
  return `${comment(sentences.fakes(contract.plan.title))}public class ${names.contract.fakes} internal constructor() {\n${properties.join("\n")}\n    internal fun calls(): Map<String, ${call}?> = buildMap {\n${all.join("")}    }\n\n${groups.join("\n")}}\n`;
}

function printFunction(context: (RestContext | GraphqlContext) & FileContext): string {
  const { names, uses } = context;
  const own = names.contract;
  const parameters = connectionParameters(context).filter(({ name }) => !["baseUrl", "servers"].includes(name));
  const given = parameters.map(({ name }) =>
    name === "settings"
      ? `settings = settings.${uses.wire("answeredBy")}(server)`
      : `${spelled(name)} = ${spelled(name)}`,
  );
  const passed = sortedBy([`baseUrl = "https://fake.test"`, ...given], (each) => each);
  const lines = parameters.map(({ name, declared }) => `    ${spelled(name)}: ${declared},\n`);
  return (
    `${comment(sentences.fake)}public fun fake${own.connection.replace(/Connection$/, "")}(\n${lines.join("")}    fakes: ${own.fakes}.() -> Unit = {},\n): ${uses.wire("FakeConnection")}<${own.connection}> {\n` +
    `    val server = ${uses.wire("FakeServer")}(${own.fakes}().apply(fakes).calls())\n` +
    `    val connection = ${own.connection}(\n${passed.map((each) => `        ${each},\n`).join("")}    )\n` +
    "    return FakeConnection(connection, server)\n}\n"
  );
}

function restFake(lowered: LoweredCall, context: RestContext & FileContext): Fake {
  const { call, answers, label } = lowered;
  const names = context.names.call(call);
  const shape = usualAnswer(lowered, context);
  const replies = shape.responses.map((response, at) => {
    const type = answers[at] && bodyType(response, answers[at], context);
    return {
      own: statusClass(response.status),
      has: type !== undefined,
      isNullable: type?.endsWith("?") === true,
      reply: (value: string) => replyText(response, answers[at], { value, context }),
    };
  });
  const item = lowered.isStream ? `List<${shape.type.replace(/\?$/, "")}>` : shape.type;
  const type = lowered.isStream && shape.type === "Unit" ? "Unit" : item;
  const way = wayToReply(replies, {
    isSeveral: shape.kind === "several",
    isStream: lowered.isStream,
    admitsNull: type.endsWith("?"),
  });
  const replyOf = (): string => {
    switch (way.kind) {
      case "cases": {
        const rows = replies.map(
          ({ own, has, reply }) => `is ${shape.type}.${own} -> ${reply(has ? "answer.value" : "answer")}`,
        );
        return `when (val answer = fake(it)) { ${rows.join("; ")} }`;
      }
      case "items":
        return way.reply.reply(`fake(it).mapNotNull { answer -> (answer as? ${shape.type}.${way.reply.own})?.value }`);
      case "nothing":
        return `fake(it); ${way.reply?.reply("") ?? `${context.uses.wire("fakeNothing")}(204)`}`;
      case "one":
        return way.ofNull
          ? `fake(it)?.let { answer -> ${way.reply.reply("answer")} } ?: ${way.ofNull.reply("null")}`
          : way.reply.reply("fake(it)");
    }
  };
  return {
    label: label.slice(label.indexOf(".") + 1),
    property: memberIdentifier(names.call, takenProperties, "Call"),
    type,
    reply: replyOf(),
    fails: restFails(lowered, context),
  };
}

function replyText(
  response: PlannedResponse,
  reading: StatusReading | undefined,
  { value, context, otherwise }: { readonly value: string; readonly context: FileContext; readonly otherwise?: number },
): string {
  const { uses } = context;
  const made = fakeReply(response, reading, otherwise);
  const { status } = made;
  if (made.kind === "nothing") return `${uses.wire("fakeNothing")}(${status})`;
  const mediaType = quoted(made.mediaType);
  if (made.kind === "bytes") return `${uses.wire("fakeBytes")}(${status}, ${mediaType}, ${value})`;
  const isPlain = made.kind === "text" && !isWords(made.type, context);
  const writer = isPlain ? uses.wire("TextForm") : printForm(made.type, "write", context);
  if (made.kind === "text") return `${uses.wire("fakeText")}(${status}, ${mediaType}, ${writer}.write(${value}))`;
  if (made.kind !== "items") return `${uses.wire("fakeJson")}(${status}, ${mediaType}, ${writer}.write(${value}))`;
  return `${uses.wire("fakeItems")}(${status}, ${mediaType}, ${quoted(made.as)}, ${value}.map { item -> ${writer}.write(item) })`;
}

function restFails({ call, failures }: LoweredCall, context: RestContext & FileContext): string {
  const names = context.names.call(call);
  const failure = context.uses.wire("FakeFailure");
  const functions = call.failures.map((response, at) => {
    const reading = failures[at];
    const type = reading && bodyType(response, reading, context);
    const own = statusClass(response.status);
    const name = spelled(own.charAt(0).toLowerCase() + own.slice(1));
    const reply = replyText(response, reading, { value: "body", context, otherwise: 500 });
    return `    public fun ${name}(${type === undefined ? "" : `body: ${type}`}): Nothing =\n        throw ${failure}(${reply})\n`;
  });
  return functions.length === 0 ? "" : printFails(names.fails, names.call, functions);
}

function printFails(name: string, call: string, functions: readonly string[]): string {
  return `${comment(sentences.fakeFailures(call))}public object ${name} {\n${functions.join("\n")}}\n`;
}

function graphqlFake({ call, label, isStream }: LoweredGraphqlCall, context: GraphqlContext & FileContext): Fake {
  const names = context.names.call(call);
  const { uses } = context;
  const answer = printReference(call.answer, context);
  const writer = printForm(call.answer, "write", context);
  const reply = isStream
    ? `${uses.wire("fakeResults")}(fake(it).map { item -> ${writer}.write(item) })`
    : `${uses.wire("fakeData")}(${writer}.write(fake(it)))`;
  const errors = `    public fun errors(messages: List<String>, data: ${orNull(answer)} = null): Nothing =\n        throw ${uses.wire("FakeFailure")}(${uses.wire("fakeErrors")}(messages, data?.let { ${writer}.write(it) }))\n`;
  return {
    label: label.slice(label.indexOf(".") + 1),
    property: memberIdentifier(names.call, takenProperties, "Call"),
    type: isStream ? `List<${answer}>` : answer,
    reply,
    fails: printFails(names.fails, names.call, [errors]),
  };
}
