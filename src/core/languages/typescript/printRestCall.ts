import type { Parameter, Reference } from "../../contract/model.js";
import { operationLabel } from "../../contract/model.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan } from "../../sdk/sdkPlan.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import { docComment, propertyAccess, propertyName, quoted, templateText } from "./escape.js";
import { contractNames, typeIdentifier, valueIdentifier } from "./identifiers.js";
import { defaultOf, deprecation, factsOf, printPresence } from "./printShapes.js";
import { printReference, printUnion, type TypePrinter } from "./printType.js";

/** Names of everything a call exports. */
export interface CallNames {
  readonly call: string;
  /** The undeprecated function behind a deprecated call, for the grouped calls. */
  readonly perform: string;
  readonly args: string;
  readonly answer: string;
  readonly failure: string;
  readonly isFailure: string;
}

export function restCallNames(call: RestCall): CallNames {
  const identifier = valueIdentifier(call.name);
  const { args, answer, failure } = call.typeNames;
  return {
    call: identifier,
    perform: call.operation.deprecated === undefined ? identifier : `perform${args.slice(0, -"Args".length)}`,
    args: typeIdentifier(args),
    answer: typeIdentifier(answer),
    failure: typeIdentifier(failure),
    isFailure: call.guard,
  };
}

/** Prints one call: its arguments, answer and failure types, the guard for its failures, and the function. */
export function printRestCall(call: RestCall, plan: RestPlan, printer: TypePrinter): string {
  const names = restCallNames(call);
  const parts = [
    printArgs(call, names, printer),
    printAnswer(call, names, printer),
    printFailure(call, plan, names, printer),
    printFunction(call, plan, names, printer),
  ];
  return parts.filter((part) => part !== "").join("\n");
}

/** The type of a call's answer, as it is written where the call is used. */
export function answerType(call: RestCall, printer: TypePrinter): string {
  const text = answerText(call, printer);
  return /^[\p{ID_Continue}$]+$/u.test(text) ? text : restCallNames(call).answer;
}

/** All that the declared successes can answer, as one type. */
function answerText(call: RestCall, printer: TypePrinter): string {
  const members = call.answers.flatMap((answer): Reference[] => (answer.type ? [answer.type] : []));
  const union = members.length === 0 ? "" : printUnion({ kind: "union", members }, printer, "exact");
  const absent = call.answers.length === 0 || call.answers.some((answer) => !answer.type);
  if (union === "unknown" || !absent) return union;
  return union === "" || union === "never" ? "undefined" : `${union} | undefined`;
}

function printArgs(call: RestCall, names: CallNames, printer: TypePrinter): string {
  if (call.arguments.length === 0) return "";
  const fields = call.arguments.map((argument) => {
    const { source } = argument;
    const node = source.kind === "parameter" ? source.parameter : source.body;
    const doc = docComment(
      [
        node.description,
        ...factsOf(argument.type.shape),
        source.kind === "parameter" ? defaultOf(source.parameter) : undefined,
        argument.standing ? "Supplied by the connection when absent." : undefined,
        source.kind === "parameter" ? deprecation(source.parameter.deprecated) : undefined,
      ],
      "  ",
    );
    return `${doc}  readonly ${propertyName(argument.name)}${printPresence(argument.type, argument.required, printer, "lenient")};\n`;
  });
  return `/** What \`${names.call}\` takes. */\nexport interface ${names.args} {\n${fields.join("")}}\n`;
}

function printAnswer(call: RestCall, names: CallNames, printer: TypePrinter): string {
  if (answerType(call, printer) !== names.answer) return "";
  const text = answerText(call, printer);
  // A record that stands right in the answer already has this name.
  return text === names.answer
    ? ""
    : `/** What \`${names.call}\` answers. */\nexport type ${names.answer} = ${text};\n`;
}

function printFailure(call: RestCall, plan: RestPlan, names: CallNames, printer: TypePrinter): string {
  const members = call.failures.map((failure) => {
    const body = failure.type ? printReference(failure.type, printer, "exact") : "undefined";
    const status = /^\d+$/.test(failure.status) ? failure.status : quoted(failure.status);
    return `wire.StatusFailure<${status}, ${body}>`;
  });
  const all = [...members, "wire.OtherFailure"];
  const line = `export type ${names.failure} = ${all.join(" | ")};`;
  const type =
    line.length <= 110 ? line : `export type ${names.failure} =${all.map((member) => `\n  | ${member}`).join("")};`;
  const statuses = call.failures.map(
    (failure) => `- ${failure.status}: ${(failure.description ?? "no description").replace(/\s+/g, " ")}`,
  );
  return (
    docComment([`How \`${names.call}\` can fail.`, statuses.join("\n")]) +
    `${type}\n\n` +
    `/** Whether an error is a failure of \`${names.call}\`; then its \`status\` narrows it. */\n` +
    `export function ${names.isFailure}(error: unknown): error is ${names.failure} {\n` +
    `  return wire.isFailure(error, ${quoted(callLabel(plan, call))});\n}\n`
  );
}

function callLabel(plan: RestPlan, call: RestCall): string {
  return `${plan.name}.${call.name}`;
}

function printFunction(call: RestCall, plan: RestPlan, names: CallNames, printer: TypePrinter): string {
  const { operation } = call;
  const answer = answerType(call, printer);
  const readsDeprecated = call.arguments.some(
    ({ source }) => source.kind === "parameter" && source.parameter.deprecated !== undefined,
  );
  const given = readsDeprecated ? "given" : "args";
  const needed = call.arguments.some((argument) => argument.required);
  const argsParameter =
    call.arguments.length === 0
      ? "_args?: wire.NoArguments"
      : needed
        ? `args: ${names.args}`
        : `args: ${names.args} = {}`;
  const doc = docComment([
    operation.summary,
    operation.description === operation.summary ? undefined : operation.description,
    `\`${operationLabel(operation)}\``,
    deprecation(operation.deprecated),
  ]);
  const fields = requestFields(call, plan, given);
  const body = [
    ...(readsDeprecated ? ["  const given = new Map<string, unknown>(Object.entries(args));"] : []),
    `  return wire.send<${answer}>(\n    connection,\n    {\n${fields.map((field) => `      ${field},\n`).join("")}    },\n    options,\n  );`,
  ].join("\n");
  const signature = `(\n  connection: ${contractNames(plan.name).connection},\n  ${argsParameter},\n  options?: wire.CallOptions,\n): Promise<${answer}>`;
  if (operation.deprecated === undefined) return `${doc}export function ${names.call}${signature} {\n${body}\n}\n`;
  return (
    `/** What \`${names.call}\` does; not marked itself, so that the grouped calls can use it. */\n` +
    `export function ${names.perform}${signature} {\n${body}\n}\n\n${doc}export const ${names.call} = ${names.perform};\n`
  );
}

function requestFields(call: RestCall, plan: RestPlan, given: string): string[] {
  const { operation } = call;
  const parameters = call.arguments.filter((argument) => argument.source.kind === "parameter");
  const inLocation = (location: Parameter["in"]): PlannedArgument[] =>
    parameters.filter(({ source }) => source.kind === "parameter" && source.parameter.in === location);
  const query = inLocation("query").map((argument) => queryItem(argument, given));
  const headers = inLocation("header").map((argument) => headerItem(argument, given));
  const body = call.arguments.find(({ source }) => source.kind === "body");
  const auth = operation.auth.filter(
    (schemes) => schemes.length > 0 && schemes.every((scheme) => plan.authSchemes.has(scheme)),
  );
  const accept = acceptOf(call.answers);
  return [
    `call: ${quoted(callLabel(plan, call))}`,
    `method: ${quoted(operation.method.toUpperCase())}`,
    `path: ${pathText(operation.path, inLocation("path"), given)}`,
    ...(query.length > 0 ? [listField("query", query)] : []),
    ...(headers.length > 0 ? [`headers: { ${headers.join(", ")} }`] : []),
    ...(body ? [`body: ${bodyText(body, "args")}`] : []),
    ...(accept === undefined ? [] : [`accept: ${quoted(accept)}`]),
    ...(auth.length > 0 ? [`auth: [${auth.map((schemes) => `[${schemes.map(quoted).join(", ")}]`).join(", ")}]`] : []),
    `answers: ${readTable(call.answers)}`,
    ...(call.failures.length > 0 ? [`failures: ${readTable(call.failures)}`] : []),
  ];
}

function listField(name: string, items: readonly string[]): string {
  const line = `${name}: [${items.join(", ")}]`;
  return line.length <= 100 ? line : `${name}: [\n${items.map((item) => `        ${item},\n`).join("")}      ]`;
}

/** The path as a template literal: fixed text escaped, each parameter written by its style. */
function pathText(path: string, parameters: readonly PlannedArgument[], given: string): string {
  if (parameters.length === 0) return quoted(path);
  const parts = path.split(/(\{[^{}]+\})/).map((part) => {
    const name = /^\{([^{}]+)\}$/.exec(part)?.[1];
    const argument = parameters.find(({ source }) => source.kind === "parameter" && source.parameter.name === name);
    if (argument?.source.kind !== "parameter") return templateText(part);
    const { parameter } = argument.source;
    const value = argumentValue(argument, given);
    const explode = parameter.explode ? ", true" : "";
    if (parameter.style === "label") return `\${wire.label(${value}${explode})}`;
    if (parameter.style === "matrix") return `\${wire.matrix(${quoted(parameter.name)}, ${value}${explode})}`;
    return `\${wire.segment(${value}${explode})}`;
  });
  return `\`${parts.join("")}\``;
}

function argumentValue(argument: PlannedArgument, given: string): string {
  const value = given === "args" ? propertyAccess("args", argument.name) : `given.get(${quoted(argument.name)})`;
  if (!argument.standing || argument.source.kind !== "parameter") return value;
  return `${value} ?? ${propertyAccess("connection.standing", memberNameFrom(argument.source.parameter.name))}`;
}

function queryItem(argument: PlannedArgument, given: string): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a query parameter.");
  const { parameter } = argument.source;
  const value = argumentValue(argument, given);
  const name = quoted(parameter.name);
  switch (parameter.style) {
    case "spaceDelimited":
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.spaced(${name}, ${value})`;
    case "pipeDelimited":
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.piped(${name}, ${value})`;
    case "deepObject":
      return `wire.deepObject(${name}, ${value})`;
    case "json":
      return `wire.jsonQuery(${name}, ${value})`;
    default:
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.form(${name}, ${value}, false)`;
  }
}

function headerItem(argument: PlannedArgument, given: string): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a header.");
  const { parameter } = argument.source;
  return `${propertyName(parameter.name)}: wire.header(${argumentValue(argument, given)}${parameter.explode ? ", true" : ""})`;
}

function bodyText(argument: PlannedArgument, given: string): string {
  if (argument.source.kind !== "body") throw new Error("A parameter is not a body.");
  const { form, mediaType } = argument.source.content;
  const value = argumentValue(argument, given);
  switch (form) {
    case "json":
      return mediaType === "application/json" || mediaType.includes("*")
        ? `wire.jsonBody(${value})`
        : `wire.jsonBody(${value}, ${quoted(mediaType)})`;
    case "urlencoded":
      return `wire.urlencoded(${value})`;
    case "multipart":
      return `wire.multipart(${value})`;
    case "text":
      return `wire.textBody(${value}, ${quoted(mediaType)})`;
    default:
      return `wire.bytesBody(${value}, ${quoted(mediaType.includes("*") ? "application/octet-stream" : mediaType)})`;
  }
}

function acceptOf(answers: readonly PlannedResponse[]): string | undefined {
  const types = [...new Set(answers.flatMap((answer) => (answer.mediaType === undefined ? [] : [answer.mediaType])))];
  return types.length > 0 ? types.join(", ") : undefined;
}

function readTable(responses: readonly PlannedResponse[]): string {
  if (responses.length === 0) return '{ "2XX": "none" }';
  const rows = responses.map(
    ({ status, form }) =>
      `${/^[1-9]\d*$/.test(status) || status === "default" ? status : quoted(status)}: ${quoted(readAs(form))}`,
  );
  return `{ ${rows.join(", ")} }`;
}

function readAs(form: PlannedResponse["form"]): "json" | "text" | "bytes" | "none" {
  return form === "json" || form === "text" || form === "none" ? form : form === "urlencoded" ? "text" : "bytes";
}

/** Runtime files a call needs beyond the plain ones. */
export function runtimeFilesOf(call: RestCall): string[] {
  const rare = call.arguments.some(
    ({ source }) =>
      source.kind === "parameter" &&
      ["label", "matrix", "spaceDelimited", "pipeDelimited", "deepObject", "json"].includes(source.parameter.style),
  );
  const forms = call.arguments.some(
    ({ source }) =>
      source.kind === "body" && (source.content.form === "urlencoded" || source.content.form === "multipart"),
  );
  return [...(rare ? ["rarerParameters.ts"] : []), ...(forms ? ["forms.ts"] : [])];
}
