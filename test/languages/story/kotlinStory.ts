import type { Field } from "../../../src/core/contract/model.js";
import { inFile, type ContractContext, type FileContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { quoted } from "../../../src/core/languages/kotlin/names/escape.js";
import { spelled } from "../../../src/core/languages/kotlin/names/identifiers.js";
import { fileText } from "../../../src/core/languages/kotlin/kotlinFile.js";
import { argumentName } from "../../../src/core/languages/kotlin/names/names.js";
import { variableName } from "../../../src/core/languages/kotlin/calls/printGraphqlCall.js";
import { fieldState } from "../../../src/core/languages/kotlin/types/printType.js";
import { memberNameFrom } from "../../../src/core/sdk/nameScope.js";
import { kotlinValue } from "../kotlin/kotlinValue.js";
import type { Data } from "../vectors/vectorRow.js";
import type { Story, StoryConnection, StoryStep } from "./storyStep.js";

/** Prints the story as a program: a file for the steps of each contract, and the list of all. */
export function printStory(story: Story, contexts: readonly ContractContext[]): Map<string, string> {
  const files = new Map<string, string>();
  for (const context of contexts) {
    const inside = inFile(context);
    const parts = story.steps.flatMap((step, at) =>
      step.contract === context.contract.plan.name ? [printStep(step, at, inside)] : [],
    );
    inside.uses.other("kotlin.time.Duration.Companion.milliseconds");
    inside.uses.other("kotlinx.coroutines.flow.take");
    files.set(
      `story/${context.contract.plan.name}.kt`,
      fileText({ package: context.package, uses: inside.uses, parts }),
    );
  }
  const list = story.steps.map(({ contract }, at) => `    app.${contract}::step${String(at)},\n`);
  const imports = story.steps.map(({ contract }, at) => `import app.${contract}.step${String(at)}\n`);
  files.set(
    "story/Story.kt",
    `package app\n\n${imports.join("")}import harness.play\n\nprivate val steps: List<suspend (String, Any?, MutableList<Any?>) -> Any?> = listOf(\n${list.join("").replaceAll(/app\.\w+::/g, "::")})\n\nfun main(given: Array<String>) = play(given[0], steps)\n`,
  );
  return files;
}

function printStep(step: StoryStep, at: number, context: FileContext): string {
  const { given, call } = callText(step, context);
  const taken = step.takes === undefined ? "" : `.take(${String(step.takes)})`;
  const performed = `${connectionText(step.connection ?? {}, step.contract, context)}\n        .${spelled(call)}(${given.join(", ")})${taken}`;
  const { cancels } = step;
  if (cancels !== undefined) context.uses.other("harness.cancelling");
  const body =
    cancels === undefined ? performed : `cancelling(${cancels === "before" ? "0" : String(cancels)}) { ${performed} }`;
  return `internal suspend fun step${String(at)}(url: String, before: Any?, told: MutableList<Any?>): Any? =\n    ${body}\n`;
}

function callText(step: StoryStep, context: FileContext): { readonly call: string; readonly given: readonly string[] } {
  const { contract, names } = context;
  const entries = Object.entries(step.given ?? {});
  if (contract.protocol === "rest") {
    const lowered = contract.calls.find(({ call }) => call.operation.operationId === step.call);
    if (!lowered) throw new Error(`There is no call ${step.call}.`);
    const own = names.call(lowered.call);
    const given = entries.flatMap(([name, value]) => {
      const argument = lowered.call.arguments.find((each) => each.name === name);
      return argument ? [`${spelled(argumentName(argument))} = ${kotlinValue(value, argument.type, context)}`] : [];
    });
    return { call: step.isPaged === true ? own.items : own.call, given };
  }
  const lowered = contract.calls.find(({ call }) => call.operation.name === step.call);
  if (!lowered) throw new Error(`There is no query ${step.call}.`);
  const { variables } = lowered.call;
  const given = entries.flatMap(([name, value]) => {
    const field = variables.find((each) => each.name === name);
    return field ? [`${spelled(variableName(field, variables))} = ${variableText(field, value, context)}`] : [];
  });
  return { call: names.call(lowered.call).call, given };
}

function variableText(field: Field, value: Data, context: FileContext): string {
  if (fieldState(field, true, context) !== "sent") return kotlinValue(value, field.type, context);
  const sent = context.uses.wire("Sent");
  return value === null ? `${sent}.Null` : `${sent}.Value(${kotlinValue(value, field.type, context)})`;
}

function connectionText(
  { auth = {}, renewed = {}, headers, timeoutMs, retries, overSocket }: StoryConnection,
  contract: string,
  { names, uses }: FileContext,
): string {
  const own = names.contract;
  const credentials = [
    ...Object.entries(auth).map(([name, value]) => `${memberNameFrom(name)} = { ${quoted(value)} }`),
    ...Object.entries(renewed).map(([name, values]) => {
      const left = `mutableListOf(${values.map((value) => quoted(value)).join(", ")})`;
      return `${memberNameFrom(name)} = ${left}.let { left -> ${uses.wire("renewable")} { left.removeAt(0) } }`;
    }),
  ];
  const told = [
    ...(headers
      ? [
          `headers = { mapOf(${Object.entries(headers)
            .map(([name, value]) => `${quoted(name)} to ${quoted(value)}`)
            .join(", ")}) }`,
        ]
      : []),
    ...(timeoutMs === undefined ? [] : [`timeout = ${String(timeoutMs)}.milliseconds`]),
    ...(retries === undefined
      ? []
      : [`around = listOf(${uses.wire("retrying")}(times = ${String(retries)}, pause = 1.milliseconds))`]),
  ];
  return `${own.connection}(${[
    `baseUrl = url + ${quoted(`/${contract}`)}`,
    ...(credentials.length > 0 ? [`auth = ${own.auth}(${credentials.join(", ")})`] : []),
    ...(told.length > 0 ? [`settings = ${uses.wire("ConnectionSettings")}(${told.join(", ")})`] : []),
    ...(overSocket === true
      ? [`graphql = ${uses.wire("GraphqlSettings")}(subscriptions = ${uses.wire("overWebSocket")}())`]
      : []),
  ].join(", ")})`;
}
