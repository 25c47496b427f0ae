import type { GraphqlCall, GraphqlPlan } from "../../sdk/sdkPlan.js";
import { parse } from "graphql";
import type { Shape } from "../../contract/model.js";
import { reachedTypes } from "../../contract/reachedTypes.js";
import { mark } from "../../sdk/nameScope.js";
import { fileBase } from "../../text/fileBase.js";
import { camelCase } from "../../text/words.js";
import { onWire, unexported } from "./onWire.js";
import { docComment, propertyName, quoted, templateText } from "./escape.js";
import { contractNames, typeIdentifier, valueIdentifier } from "./identifiers.js";
import { conversionOf, needsExact } from "./printConversions.js";
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
    variables: typeIdentifier(call.typeNames.variables),
    failure: typeIdentifier(call.typeNames.failure),
    isFailure: valueIdentifier(call.guard),
  };
}

/** The file of each call of a contract by the call's name, without its ending. */
export function graphqlCallFiles(plan: GraphqlPlan): Map<string, string> {
  const taken = new Set<string>();
  return new Map(
    plan.calls.map((call) => {
      const base = fileBase(call.name, mark) || "call";
      let file = base;
      for (let number = 2; taken.has(file); number++) file = `${base}-${String(number)}`;
      taken.add(file);
      return [call.name, file];
    }),
  );
}

/** What an operation's value carries beside its text. */
export interface OperationExtras {
  /** What servers that have the manifest know it by. */
  readonly id?: string;
  readonly isParsed?: boolean;
}

/** Prints one GraphQL operation: variables, failure and guard, the operation's value, and the function. */
export function printGraphqlCall(
  call: GraphqlCall,
  plan: GraphqlPlan,
  printer: TypePrinter,
  extras: OperationExtras = {},
): string {
  const names = graphqlCallNames(call);
  const answer = printReference(call.answer, printer, "exact");
  return [
    printVariables(call, names, printer),
    printFailure(plan, call, names, answer),
    printValue(call, names, answer, printer, extras),
    printFunction(call, plan, names, answer, printer),
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

function printValue(
  call: GraphqlCall,
  names: GraphqlCallNames,
  answer: string,
  printer: TypePrinter,
  extras: OperationExtras,
): string {
  const { operation } = call;
  const types = `<${answer}, ${variablesType(call, names)}>`;
  const whole = call.whole ? printReference(call.whole, printer, "exact") : undefined;
  const ownTypes = whole === undefined ? types : `<${answer}, ${variablesType(call, names)}, ${whole}>`;
  // Other clients give what came, and send what they are given.
  const sent: Shape = { kind: "record", fields: call.variables };
  const wire = extras.isParsed === true ? onWire([call.answer, { shape: sent, nullable: false }], printer) : undefined;
  const wireVariables = `${names.variables}OnWire`;
  const own = wire && unexported(printVariables(call, { ...names, variables: wireVariables }, wire.printer));
  const wireTypes =
    wire === undefined
      ? types
      : `<${printReference(call.answer, wire.printer, "exact")}, ${own === "" ? variablesType(call, names) : wireVariables}>`;
  const wireDeclarations =
    wire === undefined ? "" : `${[wire.declarations, own].filter((each) => each !== "").join("\n")}\n`;
  const parsedType = extras.isParsed === true ? ` & {\n  readonly parsed: TypedQueryDocumentNode${wireTypes};\n}` : "";
  const parsed =
    extras.isParsed === true
      ? `  parsed: ${parsedText(operation.text)} as unknown as TypedQueryDocumentNode${wireTypes},\n`
      : "";
  const id = extras.id === undefined ? "" : `  id: ${quoted(extras.id)},\n`;
  return (
    wireDeclarations +
    `/** The ${operation.root} as it is sent, with the types of its variables and answer. */\n` +
    `export const ${names.operation}: wire.GraphqlOperation${ownTypes}${parsedType} = {\n` +
    `  kind: ${quoted(operation.root)},\n  name: ${quoted(operation.name)},\n${id}  text: \`${templateText(operation.text)}\`,\n${parsed}};\n`
  );
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

function printFunction(
  call: GraphqlCall,
  plan: GraphqlPlan,
  names: GraphqlCallNames,
  answer: string,
  printer: TypePrinter,
): string {
  const { operation } = call;
  const { returnsFailures } = printer;
  const ways = waysOf(call, printer);
  const handed = ways.length > 0 ? `, {\n${ways.map((way) => `    ${way},\n`).join("")}  }` : "";
  const variables = variablesType(call, names);
  const needed = call.variables.some((field) => field.required);
  const doc = docComment([operation.description ?? `Performs the ${operation.root} \`${operation.name}\`.`]);
  const streams = operation.root === "subscription";
  const given = returnsFailures ? `wire.Outcome<${answer}, ${names.failure}>` : answer;
  const result = streams ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`;
  // Compilers differ in what they take the outcomes' failures for.
  const outcomes = `subscribeOutcomes<${answer}, ${variables}, ${names.failure}>`;
  const verb = streams ? (returnsFailures ? outcomes : "subscribe") : "execute";
  const performed = `wire.${verb}(connection, ${names.operation}, variables, options${handed})`;
  const returned = returnsFailures && !streams ? `wire.settled(${performed})` : performed;
  return (
    `${doc}export function ${names.call}(\n  connection: ${contractNames(plan.name).connection},\n` +
    `  variables: ${variables}${needed ? "" : " = {}"},\n  options?: wire.CallOptions,\n): ${result} {\n` +
    `  return ${returned};\n}\n`
  );
}

/** How an operation's values are told apart from what is on the wire, and whether they can hold files. */
function waysOf(call: GraphqlCall, printer: TypePrinter): string[] {
  const variables = { shape: { kind: "record", fields: call.variables } as const, nullable: false };
  // What a fragment seals is decoded too: the app sees it as soon as it unseals it.
  const answer = call.whole ?? call.answer;
  const decode = conversionOf(answer, printer);
  const encode = conversionOf(variables, printer);
  const [exactAnswer, exactVariables] = [needsExact(answer, printer), needsExact(variables, printer)];
  return [
    ...(decode === undefined ? [] : [`answer: ${exactAnswer ? `wire.exact(${decode})` : decode}`]),
    ...(exactAnswer ? ["parse: wire.parseExact"] : []),
    ...(encode === undefined ? [] : [`variables: ${encode}`]),
    ...(exactVariables ? ["stringify: wire.exactText"] : []),
    ...(hasFiles(call, printer) ? ["form: wire.uploads"] : []),
  ];
}

/** Whether the variables of a call can hold files. */
export function hasFiles(call: GraphqlCall, { types }: Pick<TypePrinter, "types">): boolean {
  const shapes: Shape[] = call.variables.map((field) => field.type.shape);
  const reached = reachedTypes(shapes, (id) => types.get(id)?.shape);
  return [...shapes, ...[...reached].flatMap((id) => types.get(id)?.shape ?? [])].some(holdsBytes);
}

function holdsBytes(shape: Shape): boolean {
  if (shape.kind === "bytes") return true;
  if (shape.kind === "list") return holdsBytes(shape.item.shape);
  return shape.kind === "record" && shape.fields.some((field) => holdsBytes(field.type.shape));
}
