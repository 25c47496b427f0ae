import type { RestContext } from "../../../src/core/languages/swift/contractContext.js";
import { quoted } from "../../../src/core/languages/swift/names/escape.js";
import { spelled } from "../../../src/core/languages/swift/names/identifiers.js";
import { argumentName } from "../../../src/core/languages/swift/names/names.js";
import { givenArguments } from "../../../src/core/languages/swift/calls/callSignature.js";
import { parameterIdentifier } from "../../../src/core/languages/swift/names/identifiers.js";
import { printReference } from "../../../src/core/languages/swift/types/printType.js";
import { memberNameFrom } from "../../../src/core/sdk/nameScope.js";
import { sortedBy } from "../../../src/core/text/sortedBy.js";
import type { VectorStep } from "../vectors/vectorSteps.js";
import { swiftValue } from "./swiftValue.js";

/** The number of steps in one file. */
const together = 60;

/**
 * Prints a program that runs steps. Before each step it asks a server for permission, and at the end of each it reports
 * the result to that server.
 */
export function vectorProgram(context: RestContext, steps: readonly VectorStep[]): Map<string, string> {
  const files = new Map<string, string>();
  for (let from = 0; from < steps.length; from += together) {
    const parts = steps.slice(from, from + together).map((step, at) => printStep(step, from + at, context));
    files.set(`Program/Steps${String(from)}.swift`, `import Foundation\n\n${parts.join("\n")}`);
  }
  const adds = steps.map((_, at) => `steps.append(step${String(at)})\n`);
  files.set(
    "Program/main.swift",
    `var steps: [Step] = []\n${adds.join("")}try await play(CommandLine.arguments[1], steps)\n`,
  );
  return files;
}

function printStep(step: VectorStep, at: number, context: RestContext): string {
  const lowered = context.contract.calls.find(({ call }) => call.operation.operationId === step.id);
  if (!lowered) throw new Error(`There is no call ${step.id}.`);
  const names = context.names.call(lowered.call);
  const auth = sortedBy(Object.entries(step.auth), ([name]) => parameterIdentifier(memberNameFrom(name))).map(
    ([name, value]) => `${parameterIdentifier(memberNameFrom(name))}: { ${quoted(value as string)} }`,
  );
  const headers = step.headers
    ? `headers: { [${Object.entries(step.headers)
        .map(([name, value]) => `${quoted(name)}: ${quoted(value)}`)
        .join(", ")}] }`
    : "";
  const back = lowered.call.arguments.find(({ name }) => name === step.givenBack);
  const given = givenArguments(lowered).flatMap((argument) => {
    const label = argumentName(argument);
    if (argument === back) return [`${label}: before.value as! ${printReference(back.type, context)}`];
    const value = step.given[argument.name];
    return value === undefined ? [] : [`${label}: ${swiftValue(value, argument.type, context)}`];
  });
  if (step.told)
    given.push(
      "options: .init(onEvent: { event, id in told.add(.list([.text(event)] + (id.map { [.text($0)] } ?? []))) })",
    );
  const call = step.isPaged === true ? names.items : names.call;
  const hasAuth = context.contract.connection.credentials.length > 0;
  const connection = `${context.connection}(${[
    ...(hasAuth ? [`auth: .init(${auth.join(", ")})`] : []),
    "baseURL: url",
    `settings: .init(${headers})`,
  ].join(", ")})`;
  const isStream = step.isPaged === true || lowered.isStream;
  return (
    `@Sendable func step${String(at)}(_ url: String, _ before: Held, _ told: Told) async throws -> Held {\n` +
    `  let connection = ${connection}\n` +
    `  return Held(value: ${isStream ? "try " : "try await "}connection.${spelled(call)}(${given.join(", ")}))\n}\n`
  );
}
