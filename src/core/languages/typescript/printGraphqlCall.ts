import type { GraphqlCall, GraphqlPlan } from "../../sdk/sdkPlan.js";
import { camelCase } from "../../text/words.js";
import { docComment, propertyName, quoted, templateText } from "./escape.js";
import { contractNames, typeIdentifier, valueIdentifier } from "./identifiers.js";
import { defaultOf, printPresence } from "./printShapes.js";
import { printReference, type TypePrinter } from "./printType.js";

export interface GraphqlCallNames {
  readonly call: string;
  /** The value that holds the operation's text and types. */
  readonly operation: string;
  readonly variables: string;
  readonly failure: string;
  readonly isFailure: string;
}

export function graphqlCallNames(call: GraphqlCall): GraphqlCallNames {
  const operation = typeIdentifier(call.name);
  const lower = valueIdentifier(camelCase(call.name) || call.name);
  return {
    call: lower === operation ? `${lower}Call` : lower,
    operation,
    variables: call.typeNames.variables,
    failure: call.typeNames.failure,
    isFailure: call.guard,
  };
}

/** Prints one GraphQL operation: variables, failure and guard, the operation's value, and the function. */
export function printGraphqlCall(call: GraphqlCall, plan: GraphqlPlan, printer: TypePrinter): string {
  const names = graphqlCallNames(call);
  const answer = printReference(call.answer, printer, "exact");
  return [
    printVariables(call, names, printer),
    printFailure(plan, call, names, answer),
    printValue(call, names, answer),
    printFunction(call, plan, names, answer, printer.returnsFailures),
  ]
    .filter((part) => part !== "")
    .join("\n");
}

function printVariables(call: GraphqlCall, names: GraphqlCallNames, printer: TypePrinter): string {
  if (call.variables.length === 0) return "";
  const fields = call.variables.map(
    (field) =>
      `${docComment([defaultOf(field)], "  ")}  readonly ${propertyName(field.name)}${printPresence(field.type, field.required, printer, "lenient")};\n`,
  );
  return `/** What \`${names.call}\` takes. */\nexport interface ${names.variables} {\n${fields.join("")}}\n`;
}

function variablesType(call: GraphqlCall, names: GraphqlCallNames): string {
  return call.variables.length === 0 ? "wire.NoArguments" : names.variables;
}

function printFailure(plan: GraphqlPlan, call: GraphqlCall, names: GraphqlCallNames, answer: string): string {
  const label = `${plan.name}.${call.name.charAt(0).toLowerCase()}${call.name.slice(1)}`;
  return (
    `/** How \`${names.call}\` can fail; with status "errors" it carries what could be answered all the same. */\n` +
    `export type ${names.failure} = wire.GraphqlErrorsFailure<${answer}> | wire.OtherFailure;\n\n` +
    `/** Whether an error is a failure of \`${names.call}\`; then its \`status\` narrows it. */\n` +
    `export function ${names.isFailure}(error: unknown): error is ${names.failure} {\n` +
    `  return wire.isFailure(error, ${quoted(label)});\n}\n`
  );
}

function printValue(call: GraphqlCall, names: GraphqlCallNames, answer: string): string {
  const { operation } = call;
  const text = templateText(operation.text)
    .split("\n")
    .map((line) => (line === "" ? "" : `    ${line}`))
    .join("\n");
  return (
    `/** The ${operation.root} as it is sent, with the types of its variables and answer. */\n` +
    `export const ${names.operation}: wire.GraphqlOperation<${answer}, ${variablesType(call, names)}> = {\n` +
    `  kind: ${quoted(operation.root)},\n  name: ${quoted(operation.name)},\n  text: \`\n${text}\n  \`,\n};\n`
  );
}

function printFunction(
  call: GraphqlCall,
  plan: GraphqlPlan,
  names: GraphqlCallNames,
  answer: string,
  returnsFailures: boolean,
): string {
  const { operation } = call;
  const variables = variablesType(call, names);
  const needed = call.variables.some((field) => field.required);
  const doc = docComment([operation.description ?? `Performs the ${operation.root} \`${operation.name}\`.`]);
  const streams = operation.root === "subscription";
  const given = returnsFailures ? `wire.Outcome<${answer}, ${names.failure}>` : answer;
  const result = streams ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`;
  const performed = `wire.${streams ? "subscribe" : "execute"}(connection, ${names.operation}, variables, options)`;
  const returned = returnsFailures ? `wire.${streams ? "settledItems" : "settled"}(${performed})` : performed;
  return (
    `${doc}export function ${names.call}(\n  connection: ${contractNames(plan.name).connection},\n` +
    `  variables: ${variables}${needed ? "" : " = {}"},\n  options?: wire.CallOptions,\n): ${result} {\n` +
    `  return ${returned};\n}\n`
  );
}
