import type { Field } from "../../../src/core/contract/model.js";
import { givenArguments } from "../../../src/core/languages/swift/calls/callSignature.js";
import type { ContractContext } from "../../../src/core/languages/swift/contractContext.js";
import { quoted } from "../../../src/core/languages/swift/names/escape.js";
import { parameterIdentifier, spelled } from "../../../src/core/languages/swift/names/identifiers.js";
import { argumentName } from "../../../src/core/languages/swift/names/names.js";
import { variableName } from "../../../src/core/languages/swift/calls/printGraphqlCall.js";
import { fieldState } from "../../../src/core/languages/swift/types/printType.js";
import { memberNameFrom } from "../../../src/core/sdk/nameScope.js";
import { sortedBy } from "../../../src/core/text/sortedBy.js";
import { swiftValue } from "../swift/swiftValue.js";
import type { Data } from "../vectors/vectorRow.js";
import type { Story, StoryConnection, StoryStep } from "./storyStep.js";

/** Prints the story as a program: a file for the steps of each contract, and the list of all. */
export function printStory(story: Story, contexts: readonly ContractContext[]): Map<string, string> {
  const files = new Map<string, string>();
  for (const context of contexts) {
    const parts = story.steps.flatMap((step, at) =>
      step.contract === context.contract.plan.name ? [printStep(step, at, context)] : [],
    );
    files.set(`Story/${context.space}Steps.swift`, `import Foundation\n\n${parts.join("\n")}`);
  }
  const adds = story.steps.map((_, at) => `steps.append(step${String(at)})\n`);
  files.set(
    "Story/main.swift",
    `var steps: [Step] = []\n${adds.join("")}try await play(CommandLine.arguments[1], steps)\n`,
  );
  return files;
}

function printStep(step: StoryStep, at: number, context: ContractContext): string {
  const { given, call, isStream } = callText(step, context);
  const performed = `${isStream ? "try" : "try await"} connection.${spelled(call)}(${given.join(", ")})`;
  const taken = step.takes === undefined ? performed : `Taken(items: ${performed}, count: ${String(step.takes)})`;
  const made = `let connection = ${connectionText(step.connection ?? {}, step.contract, context)}`;
  const body =
    step.cancels === undefined
      ? `  ${made}\n  return Held(value: ${taken})\n`
      : `  return try await cancelling(afterMs: ${step.cancels === "before" ? "nil" : String(step.cancels)}) {\n    ${made}\n    return Held(value: ${taken})\n  }\n`;
  return `@Sendable func step${String(at)}(_ url: String, _ before: Held, _ told: Told) async throws -> Held {\n${body}}\n`;
}

interface CallText {
  readonly call: string;
  readonly given: readonly string[];
  readonly isStream: boolean;
}

function callText(step: StoryStep, context: ContractContext): CallText {
  const { contract, names } = context;
  const entries = new Map(Object.entries(step.given ?? {}));
  if (contract.protocol === "rest") {
    const lowered = contract.calls.find(({ call }) => call.operation.operationId === step.call);
    if (!lowered) throw new Error(`There is no call ${step.call}.`);
    const own = names.call(lowered.call);
    const given = givenArguments(lowered).flatMap((argument) => {
      const value = entries.get(argument.name);
      return value === undefined ? [] : [`${argumentName(argument)}: ${swiftValue(value, argument.type, context)}`];
    });
    const isPaged = step.isPaged === true;
    return { call: isPaged ? own.items : own.call, given, isStream: isPaged || lowered.isStream };
  }
  const lowered = contract.calls.find(({ call }) => call.operation.name === step.call);
  if (!lowered) throw new Error(`There is no query ${step.call}.`);
  const { variables } = lowered.call;
  const given = sortedBy(variables, (field) => variableName(field, variables)).flatMap((field) => {
    const value = entries.get(field.name);
    return value === undefined ? [] : [`${variableName(field, variables)}: ${variableText(field, value, context)}`];
  });
  return { call: names.call(lowered.call).call, given, isStream: lowered.isStream };
}

function variableText(field: Field, value: Data, context: ContractContext): string {
  if (fieldState(field, true, context) !== "sent") return swiftValue(value, field.type, context);
  return value === null ? ".null" : `.value(${swiftValue(value, field.type, context)})`;
}

function connectionText(
  { auth = {}, renewed = {}, headers, timeoutMs, retries, overSocket }: StoryConnection,
  contract: string,
  { connection, wire }: ContractContext,
): string {
  const credentials = [
    ...Object.entries(auth).map(
      ([name, value]) => `${parameterIdentifier(memberNameFrom(name))}: { ${quoted(value)} }`,
    ),
    ...Object.entries(renewed).map(([name, values]) => {
      const left = `${wire}.Guarded([${values.map((value) => quoted(value)).join(", ")}])`;
      return `${parameterIdentifier(memberNameFrom(name))}: { let left = ${left}; return ${wire}.renewable { _ in left.with { $0.removeFirst() } } }()`;
    }),
  ];
  const told = [
    ...(retries === undefined ? [] : [`around: [${wire}.retrying(pause: 0.001, times: ${String(retries)})]`]),
    ...(headers
      ? [
          `headers: { [${Object.entries(headers)
            .map(([name, value]) => `${quoted(name)}: ${quoted(value)}`)
            .join(", ")}] }`,
        ]
      : []),
    ...(timeoutMs === undefined ? [] : [`timeout: ${String(timeoutMs / 1000)}`]),
  ];
  return `${connection}(${[
    ...(credentials.length > 0 ? [`auth: .init(${credentials.join(", ")})`] : []),
    `baseURL: url + ${quoted(`/${contract}`)}`,
    ...(overSocket === true ? [`graphql: .init(subscriptions: ${wire}.overWebSocket())`] : []),
    ...(told.length > 0 ? [`settings: .init(${told.join(", ")})`] : []),
  ].join(", ")})`;
}
