import { sentences } from "../../../sdk/lower/sentences.js";
import { parse } from "graphql";
import type { Shape } from "../../../contract/model.js";
import { graphqlCallWords, variableWords } from "../../../sdk/lower/documentation.js";
import type { LoweredGraphqlCall } from "../../../sdk/lower/loweredSdk.js";
import type { GraphqlContext } from "../contractContext.js";
import { comment, docComment, propertyName, quoted, templateText } from "../names/escape.js";
import type { GraphqlCallNames } from "../names/names.js";
import { onWire, unexported } from "../types/onWire.js";
import { conversionText } from "../types/printConversions.js";
import { printGuard } from "./printFailure.js";
import { resultType, returnsFailures } from "./printResult.js";
import { printPresence } from "../types/printShapes.js";
import { printReference, type TypePrinter } from "../types/printType.js";

/** The parts of an operation's constant besides its text. */
export interface OperationExtras {
  /** The id for servers with the manifest. */
  readonly id?: string;
  readonly isParsed: boolean;
}

/** Prints one GraphQL operation: variables, failure and guard, the operation's constant, and the function. */
export function printGraphqlCall(
  lowered: LoweredGraphqlCall,
  context: GraphqlContext,
  extras: OperationExtras,
): string {
  const names = context.names.graphql(lowered.call);
  const answer = printReference(lowered.call.answer, context.printer, "exact");
  return [
    printVariables(lowered, names, context.printer),
    printFailure(lowered, names, answer),
    printValue(lowered, { names, answer, printer: context.printer, extras }),
    printFunction(lowered, answer, context),
  ]
    .filter((part) => part !== "")
    .join("\n");
}

function printVariables({ call }: LoweredGraphqlCall, names: GraphqlCallNames, printer: TypePrinter): string {
  if (call.variables.length === 0) return "";
  const fields = call.variables.map(
    (field) =>
      `${docComment(variableWords(field), "  ")}  readonly ${propertyName(field.name)}${printPresence(field.type, field.required, { printer, stance: "lenient" })};\n`,
  );
  return `${comment(sentences.arguments(names.call))}export interface ${names.variables} {\n${fields.join("")}}\n`;
}

/** Returns the type of a call's arguments. */
export function variablesType({ call }: LoweredGraphqlCall, names: GraphqlCallNames): string {
  return call.variables.length === 0 ? "wire.NoArguments" : names.variables;
}

function printFailure({ label }: LoweredGraphqlCall, names: GraphqlCallNames, answer: string): string {
  return `${comment(sentences.graphqlFailure(names.call))}export type ${names.failure} = wire.GraphqlErrorsFailure<${answer}> | wire.OtherFailure;\n\n${printGuard(names, label)}`;
}

interface ValueContext {
  readonly names: GraphqlCallNames;
  readonly answer: string;
  readonly printer: TypePrinter;
  readonly extras: OperationExtras;
}

function printValue(lowered: LoweredGraphqlCall, { names, answer, printer, extras }: ValueContext): string {
  const { operation, whole } = lowered.call;
  const types = `<${answer}, ${variablesType(lowered, names)}>`;
  const ownTypes =
    whole === undefined
      ? types
      : `<${answer}, ${variablesType(lowered, names)}, ${printReference(whole, printer, "exact")}>`;
  const parsed = extras.isParsed ? parsedForm(lowered, names, { types, printer }) : undefined;
  const id = extras.id === undefined ? "" : `  id: ${quoted(extras.id)},\n`;
  return (
    (parsed?.declarations ?? "") +
    comment(sentences.operation(operation.root)) +
    `export const ${names.operation}: wire.GraphqlOperation${ownTypes}${parsed?.type ?? ""} = {\n` +
    `  kind: ${quoted(operation.root)},\n  name: ${quoted(operation.name)},\n${id}  text: \`${templateText(operation.text)}\`,\n${parsed?.member ?? ""}};\n`
  );
}

/** The operation's text in parsed form, for other clients. Its types are those in JSON. */
function parsedForm(
  lowered: LoweredGraphqlCall,
  names: GraphqlCallNames,
  { types, printer }: { readonly types: string; readonly printer: TypePrinter },
) {
  const { call } = lowered;
  // Other clients return responses as they are, and send variables as they are.
  const sent: Shape = { kind: "record", fields: call.variables };
  const wire = onWire([call.answer, { shape: sent, nullable: false }], printer);
  const wireVariables = `${names.variables}OnWire`;
  const own = wire && unexported(printVariables(lowered, { ...names, variables: wireVariables }, wire.printer));
  const wireTypes =
    wire === undefined
      ? types
      : `<${printReference(call.answer, wire.printer, "exact")}, ${own === "" ? variablesType(lowered, names) : wireVariables}>`;
  return {
    declarations: wire === undefined ? "" : `${[wire.declarations, own].filter((each) => each !== "").join("\n")}\n`,
    type: ` & {\n  readonly parsed: TypedQueryDocumentNode${wireTypes};\n}`,
    member: `  parsed: ${parsedText(call.operation.text)} as unknown as TypedQueryDocumentNode${wireTypes},\n`,
  };
}

/** The syntax tree of a document as an expression, without places. */
function parsedText(text: string): string {
  return literal(parse(text, { noLocation: true }));
}

function literal(value: unknown): string {
  if (typeof value === "string") return quoted(value);
  if (Array.isArray(value)) return `[${value.map(literal).join(", ")}]`;
  if (typeof value !== "object" || value === null) return String(value);
  const fields = Object.entries(value).filter(([, each]) => each !== undefined);
  return `{ ${fields.map(([name, each]) => `${propertyName(name)}: ${literal(each)}`).join(", ")} }`;
}

function printFunction(lowered: LoweredGraphqlCall, answer: string, context: GraphqlContext): string {
  const { call, isStream } = lowered;
  const names = context.names.graphql(call);
  const ways = waysOf(lowered, context.printer);
  const handed = ways.length > 0 ? `, {\n${ways.map((way) => `    ${way},\n`).join("")}  }` : "";
  const variables = variablesType(lowered, names);
  const needed = call.variables.some((field) => field.required);
  const returns = returnsFailures(context);
  // Compilers infer different types for the failures of outcomes.
  const outcomes = `subscribeOutcomes<${answer}, ${variables}, ${names.failure}>`;
  const verb = isStream ? (returns ? outcomes : "subscribe") : "execute";
  const performed = `wire.${verb}(connection, ${names.operation}, variables, options${handed})`;
  const returned = returns && !isStream ? `wire.settled(${performed})` : performed;
  return (
    `${docComment(graphqlCallWords(call))}export function ${names.call}(\n  connection: ${context.names.contract.connection},\n` +
    `  variables: ${variables}${needed ? "" : " = {}"},\n  options?: wire.CallOptions,\n): ${resultType(answer, isStream, { failure: names.failure, context })} {\n` +
    `  return ${returned};\n}\n`
  );
}

/** How an operation's values differ from JSON, and whether they can contain files. */
function waysOf({ answer, variables, hasFiles }: LoweredGraphqlCall, printer: TypePrinter): string[] {
  const decode = answer.conversion && conversionText(answer.conversion, printer);
  const encode = variables.conversion && conversionText(variables.conversion, printer);
  return [
    ...(decode === undefined ? [] : [`answer: ${answer.isExact ? `wire.exact(${decode})` : decode}`]),
    ...(answer.isExact ? ["parse: wire.parseExact"] : []),
    ...(encode === undefined ? [] : [`variables: ${encode}`]),
    ...(variables.isExact ? ["stringify: wire.exactText"] : []),
    ...(hasFiles ? ["form: wire.uploads"] : []),
  ];
}
