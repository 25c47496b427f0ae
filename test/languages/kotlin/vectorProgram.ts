import { inFile, type RestContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { quoted } from "../../../src/core/languages/kotlin/names/escape.js";
import { spelled } from "../../../src/core/languages/kotlin/names/identifiers.js";
import { fileText } from "../../../src/core/languages/kotlin/kotlinFile.js";
import { argumentName } from "../../../src/core/languages/kotlin/names/names.js";
import { printReference } from "../../../src/core/languages/kotlin/types/printType.js";
import { memberNameFrom } from "../../../src/core/sdk/nameScope.js";
import type { VectorStep } from "../vectors/vectorSteps.js";
import { kotlinValue } from "./kotlinValue.js";

/** The number of steps in one file: one file with all of them is slow to compile. */
const together = 60;

/**
 * Prints a program that runs steps. Before each step it asks a server for permission, and at the end of each it reports
 * the result to that server.
 */
export function vectorProgram(context: RestContext, steps: readonly VectorStep[]): Map<string, string> {
  const files = new Map<string, string>();
  for (let from = 0; from < steps.length; from += together) {
    const inside = inFile(context);
    inside.uses.wire("CallOptions");
    inside.uses.wire("ConnectionSettings");
    const parts = steps
      .slice(from, from + together)
      .map((step, at) => printStep(step, from + at, { ...context, uses: inside.uses }));
    files.set(
      `program/Steps${String(from)}.kt`,
      fileText({ package: context.package, uses: inside.uses, parts, suppresses: ["UNCHECKED_CAST"] }),
    );
  }
  const list = steps.map((_, at) => `    ::step${String(at)},\n`);
  files.set(
    "program/Main.kt",
    `package ${context.package}\n\nimport harness.play\n\nprivate val steps: List<suspend (String, Any?, MutableList<Any?>) -> Any?> = listOf(\n${list.join("")})\n\nfun main(given: Array<String>) = play(given[0], steps)\n`,
  );
  return files;
}

function printStep(step: VectorStep, at: number, context: RestContext & ReturnType<typeof inFile>): string {
  const lowered = context.contract.calls.find(({ call }) => call.operation.operationId === step.id);
  if (!lowered) throw new Error(`There is no call ${step.id}.`);
  const names = context.names.call(lowered.call);
  const auth = Object.entries(step.auth).map(
    ([name, value]) => `${spelled(memberNameFrom(name))} = { ${quoted(value as string)} }`,
  );
  const headers = step.headers
    ? `headers = { mapOf(${Object.entries(step.headers)
        .map(([name, value]) => `${quoted(name)} to ${quoted(value)}`)
        .join(", ")}) }`
    : "";
  const given = Object.entries(step.given).flatMap(([name, value]) => {
    const argument = lowered.call.arguments.find((each) => each.name === name);
    return argument ? [`${spelled(argumentName(argument))} = ${kotlinValue(value, argument.type, context)}`] : [];
  });
  const back = lowered.call.arguments.find(({ name }) => name === step.givenBack);
  if (back) given.push(`${spelled(argumentName(back))} = before as ${printReference(back.type, context)}`);
  if (step.told) given.push("options = CallOptions(onEvent = { event, id -> told.add(listOfNotNull(event, id)) })");
  const call = step.isPaged === true ? names.items : names.call;
  const hasAuth = context.contract.connection.credentials.length > 0;
  const connection = `${context.names.contract.connection}(${[
    ...(hasAuth ? [`auth = ${context.names.contract.auth}(${auth.join(", ")})`] : []),
    "baseUrl = url",
    `settings = ConnectionSettings(${headers})`,
  ].join(", ")})`;
  return `internal suspend fun step${String(at)}(url: String, before: Any?, told: MutableList<Any?>): Any? =\n    ${connection}\n        .${spelled(call)}(${given.join(", ")})\n`;
}
