import type { Content, Field, Parameter, Reference, Shape } from "../../contract/model.js";
import { isStream, operationLabel } from "../../contract/model.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan } from "../../sdk/sdkPlan.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import { docComment, propertyAccess, propertyName, quoted, templateText } from "./escape.js";
import { checkOf } from "./printChecks.js";
import { contractNames, typeIdentifier, valueIdentifier } from "./identifiers.js";
import { convertedLeaf, plainFormats } from "./formats.js";
import { conversionOf, needsExact } from "./printConversions.js";
import { defaultOf, deprecation, factsOf, printPresence } from "./printShapes.js";
import { serverUrl } from "./printConnect.js";
import { behind, printReference, printUnion, type TypePrinter } from "./printType.js";

/** Names of everything a call exports. */
export interface CallNames {
  readonly call: string;
  /** The undeprecated function behind a deprecated call, for the grouped calls. */
  readonly perform: string;
  readonly args: string;
  readonly answer: string;
  /** The answers by media type, where a call can be asked for one. */
  readonly answers: string;
  readonly failure: string;
  readonly isFailure: string;
  /** The function that reads the headers of answers and failures. */
  readonly headersReader: string;
  /** The function that goes through all items of all pages. */
  readonly items: string;
  /** The undeprecated function behind it. */
  readonly performItems: string;
}

export function restCallNames(call: RestCall): CallNames {
  const known = namesOfCalls.get(call) ?? namesOf(call);
  namesOfCalls.set(call, known);
  return known;
}

/** The same few names are asked for by everything that is printed about a call. */
const namesOfCalls = new WeakMap<RestCall, CallNames>();

function namesOf(call: RestCall): CallNames {
  const identifier = valueIdentifier(call.name);
  const { args, answer, answers, failure } = call.typeNames;
  const items = valueIdentifier(call.paging?.name ?? "");
  return {
    call: identifier,
    perform: call.operation.deprecated === undefined ? identifier : `perform${args.slice(0, -"Args".length)}`,
    args: typeIdentifier(args),
    answer: typeIdentifier(answer),
    answers: typeIdentifier(answers),
    failure: typeIdentifier(failure),
    isFailure: valueIdentifier(call.guard),
    headersReader: valueIdentifier(call.headersReader),
    items,
    performItems:
      call.operation.deprecated === undefined ? items : `perform${typeIdentifier(args.slice(0, -"Args".length))}Items`,
  };
}

/** Prints one call: its arguments, answer and failure types, the guard for its failures, and the function. */
export function printRestCall(call: RestCall, plan: RestPlan, printer: TypePrinter): string {
  const names = restCallNames(call);
  const parts = [
    printArgs(call, names, printer),
    printAnswer(call, names, printer),
    printAnswers(call, names, printer),
    printFailure(call, plan, names, printer),
    printHeaders(call, names, printer),
    printFunction(call, plan, names, printer),
    printPages(call, plan, names, printer),
  ];
  return parts.filter((part) => part !== "").join("\n");
}

/** The type of a call's answer, as it is written where the call is used. */
export function answerType(call: RestCall, printer: TypePrinter): string {
  const text = answerText(call, printer);
  return /^[\w$]+$/.test(text) || /^[\p{ID_Continue}$]+$/u.test(text) ? text : restCallNames(call).answer;
}

/** All that the declared successes can answer, as one type. */
function answerText(call: RestCall, printer: TypePrinter): string {
  return textOfAnswers(call, call.answers, printer);
}

function textOfAnswers(call: RestCall, answers: readonly PlannedResponse[], printer: TypePrinter): string {
  const members = answers.flatMap((answer): Reference[] => (answer.type ? [answer.type] : []));
  const [only] = members;
  if (only && members.length === 1 && answers.length === 1) return printReference(only, printer, "exact");
  const union = members.length === 0 ? "" : printUnion({ kind: "union", members }, printer, "exact");
  const absent = !isStreaming(call) && (answers.length === 0 || answers.some((answer) => !answer.type));
  if (union === "unknown" || !absent) return union;
  return union === "" || union === "never" ? "undefined" : `${union} | undefined`;
}

function printArgs(call: RestCall, names: CallNames, printer: TypePrinter): string {
  if (call.arguments.length === 0) return "";
  const body = call.arguments.find(({ source }) => source.kind === "body" && source.others.length > 0);
  const fields = call.arguments
    .filter((argument) => argument !== body)
    .map((argument) => printArgument(argument, argument.type, printer));
  const words = `/** What \`${names.call}\` takes. */\n`;
  if (!body) return `${words}export interface ${names.args} {\n${fields.join("")}}\n`;
  const ways = bodyWays(body).map(({ content, type }, at) => {
    const isUsual = at === 0;
    const said = `  readonly bodyType${isUsual ? "?" : ""}: ${quoted(content.mediaType)}${isUsual ? " | undefined" : ""};\n`;
    return `{\n${printArgument(body, type, printer)}${said}}`;
  });
  const common = fields.length === 0 ? "" : `{\n${fields.join("")}} & `;
  return `${words}export type ${names.args} = ${common}(\n  | ${ways.map((way) => way.replaceAll("\n", "\n    ")).join("\n  | ")}\n);\n`;
}

function printArgument(argument: PlannedArgument, type: Reference, printer: TypePrinter): string {
  const { source } = argument;
  const node = source.kind === "parameter" ? source.parameter : source.body;
  const doc = docComment(
    [
      node.description,
      ...factsOf(type.shape),
      source.kind === "parameter" ? defaultOf(source.parameter) : undefined,
      argument.standing ? "Supplied by the connection when absent." : undefined,
      source.kind === "parameter" ? deprecation(source.parameter.deprecated) : undefined,
    ],
    "  ",
  );
  return `${doc}  readonly ${propertyName(argument.name)}${printPresence(type, argument.required, printer, "lenient")};\n`;
}

/** The ways a body can be sent, the usual one first. */
function bodyWays({ source, type }: PlannedArgument): { content: Content; type: Reference }[] {
  return source.kind === "body" ? [{ content: source.content, type }, ...source.others] : [];
}

function printAnswer(call: RestCall, names: CallNames, printer: TypePrinter): string {
  if (answerType(call, printer) !== names.answer) return "";
  const text = answerText(call, printer);
  // A record that stands right in the answer already has this name.
  return text === names.answer
    ? ""
    : `${docComment([`What \`${names.call}\` answers.`, ...answerWords(call)])}export type ${names.answer} = ${text};\n`;
}

/** What a call answers by the media type it is asked for. */
function printAnswers(call: RestCall, names: CallNames, printer: TypePrinter): string {
  if (call.answerChoices.length === 0) return "";
  const rows = call.answerChoices.map(
    ({ mediaType, answers }) => `  readonly ${quoted(mediaType)}: ${textOfAnswers(call, answers, printer)};\n`,
  );
  return `/** What \`${names.call}\` answers, by the \`answerType\` it is asked for. */\nexport interface ${names.answers} {\n${rows.join("")}}\n`;
}

function answerWords(call: RestCall): string[] {
  const [only] = call.answers;
  if (call.answers.length === 1) return only?.description === undefined ? [] : [only.description];
  return [
    call.answers
      .map(({ status, description }) => `- ${status}: ${(description ?? "no description").replace(/\s+/g, " ")}`)
      .join("\n"),
  ];
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

/** The headers that the call's answers and failures declare, and the function that reads them. */
function printHeaders(call: RestCall, names: CallNames, typePrinter: TypePrinter): string {
  if (call.headers.length === 0) return "";
  // Headers are read as they are sent.
  const printer = { ...typePrinter, formats: plainFormats };
  const fields = call.headers.map(({ name, field }) => {
    const doc = docComment(
      [field.description, `\`${field.name}\``, ...factsOf(field.type.shape), deprecation(field.deprecated)],
      "  ",
    );
    return `${doc}  readonly ${propertyName(name)}: ${printReference(field.type, printer, "exact")} | undefined;\n`;
  });
  const values = call.headers.map(({ name, field }) => `    ${propertyName(name)}: ${headerValue(field, printer)},\n`);
  const type = typeIdentifier(call.typeNames.headers);
  return (
    `/** Headers of \`${names.call}\`, of its answers and failures alike. */\nexport interface ${type} {\n${fields.join("")}}\n\n` +
    `/** Reads the headers that \`${names.call}\` passes to \`onAnswer\`, or that its failures carry. */\n` +
    `export function ${names.headersReader}(headers: Headers): ${type} {\n  return {\n${values.join("")}  };\n}\n`
  );
}

function headerValue(field: Field, printer: TypePrinter): string {
  const shape = behind(field.type.shape, printer);
  const isList = shape.kind === "list";
  const item = shape.kind === "list" ? behind(shape.item.shape, printer) : shape;
  return `wire.${isList ? "readHeaders" : "readHeader"}(headers, ${quoted(field.name)}, ${headerReader(item)})`;
}

function headerReader(shape: Shape): string {
  if (shape.kind === "integer" || shape.kind === "number") return "wire.asNumber";
  if (shape.kind === "boolean") return "wire.asBoolean";
  const values =
    shape.kind === "literal" ? [shape.value] : shape.kind === "choice" ? shape.values.map(({ value }) => value) : [];
  return values.length === 0
    ? "wire.asText"
    : `wire.asOneOf(${values.map((value) => quoted(String(value))).join(", ")})`;
}

function printFunction(call: RestCall, plan: RestPlan, names: CallNames, printer: TypePrinter): string {
  const { operation } = call;
  const answer = answerType(call, printer);
  const readsDeprecated = call.arguments.some(
    ({ source }) => source.kind === "parameter" && source.parameter.deprecated !== undefined,
  );
  const given = readsDeprecated ? "given" : "args";
  const { generics, argsType, argsNeeded } = groupedSignature(call);
  const hasArgs = argsType !== "wire.NoArguments";
  const argsParameter = hasArgs ? `args: ${argsType}${argsNeeded ? "" : " = {}"}` : "_args?: wire.NoArguments";
  const doc = docComment([
    operation.summary,
    operation.description === operation.summary ? undefined : operation.description,
    `\`${operationLabel(operation)}\``,
    deprecation(operation.deprecated),
  ]);
  const fields = requestFields(call, plan, given, printer);
  const streams = isStreaming(call);
  const type = generics === "" ? answer : `${names.answers}[Type]`;
  const performed = `wire.${streams ? "receive" : "send"}<${type}>(\n    connection,\n    {\n${fields.map((field) => `      ${field},\n`).join("")}    },\n    options,\n  )`;
  const returned = printer.returnsFailures ? `wire.${streams ? "settledItems" : "settled"}(${performed})` : performed;
  const body = [
    ...(readsDeprecated ? ["  const given = new Map<string, unknown>(Object.entries(args));"] : []),
    `  return ${returned};`,
  ].join("\n");
  const signature = `${generics}(\n  connection: ${contractNames(plan.name).connection},\n  ${argsParameter},\n  options?: wire.CallOptions,\n): ${resultType(type, streams, names, printer)}`;
  if (operation.deprecated === undefined) return `${doc}export function ${names.call}${signature} {\n${body}\n}\n`;
  return (
    `/** What \`${names.call}\` does; not marked itself, so that the grouped calls can use it. */\n` +
    `export function ${names.perform}${signature} {\n${body}\n}\n\n${doc}export const ${names.call} = ${names.perform};\n`
  );
}

/** How a call is called, as far as all of its forms have it in common. */
export function groupedSignature(call: RestCall): { generics: string; argsType: string; argsNeeded: boolean } {
  const { args, answers } = restCallNames(call);
  const [usual] = call.answerChoices;
  const own = call.arguments.length === 0 ? undefined : args;
  const argsNeeded = call.arguments.some((argument) => argument.required);
  if (!usual) return { generics: "", argsType: own ?? "wire.NoArguments", argsNeeded };
  const choice = "{ readonly answerType?: Type | undefined }";
  return {
    generics: `<Type extends keyof ${answers} = ${quoted(usual.mediaType)}>`,
    argsType: own === undefined ? choice : `${own} & ${choice}`,
    argsNeeded,
  };
}

function resultType(answer: string, streams: boolean, names: CallNames, printer: TypePrinter): string {
  const given = printer.returnsFailures ? `wire.Outcome<${answer}, ${names.failure}>` : answer;
  return streams ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`;
}

/** The function that goes through all pages of a call. */
function printPages(call: RestCall, plan: RestPlan, names: CallNames, printer: TypePrinter): string {
  const { paging } = call;
  if (!paging) return "";
  const { argsType, argsNeeded } = groupedSignature(call);
  const hasArgs = call.arguments.length > 0;
  const item = printReference(paging.item, printer, "exact");
  const argument = paging.argument === undefined ? "" : propertyName(paging.argument);
  const asked = (given: string): string => {
    const performed = `${names.perform}(connection, ${given}, options)`;
    return printer.returnsFailures ? `wire.unsettled(${performed})` : performed;
  };
  const reach = (path: readonly string[]): string => reached(path, call.answers[0]?.type, printer);
  const items = `(page) => ${reach(paging.items)}`;
  const label = quoted(callLabel(plan, call));
  const planned = call.arguments.find(({ name }) => name === paging.argument);
  const isDeprecated = planned?.source.kind === "parameter" && planned.source.parameter.deprecated !== undefined;
  // To read a deprecated argument, or to give it by a variable of its name, would be complained about.
  const place = isDeprecated ? "place" : argument;
  // Pages are counted in numbers, whatever the settings make of a 64-bit one.
  const own = planned && convertedLeaf(behind(planned.type.shape, printer), printer.formats)?.type;
  const converted = own === "bigint" ? `BigInt(${place})` : own === "string" ? `String(${place})` : place;
  const given = converted === argument ? argument : `${argument}: ${converted}`;
  // Nor may it be written where its type is known to be deprecated, so it gets a line of its own.
  const askedAt = (more: string): string =>
    isDeprecated
      ? `(${place}) => {\n      const given = ${more};\n      return ${asked("{ ...args, ...given }")};\n    }`
      : `(${place}) => ${asked(more.startsWith("{") ? `{ ...args, ${given} }` : `{ ...args, ...(${more}) }`)}`;
  const start = (first: number): string => {
    if (paging.argument === undefined) return "";
    const found = isDeprecated
      ? `new Map<string, unknown>(Object.entries(args)).get(${quoted(paging.argument)})`
      : propertyAccess("args", paging.argument);
    const said = `${found} ?? ${String(first)}`;
    return isDeprecated || own === "bigint" || own === "string" ? `Number(${said})` : said;
  };
  const pages = {
    cursor: () =>
      `wire.pagesByCursor(\n    ${label},\n    ${askedAt(`${place} === undefined ? {} : { ${given} }`)},\n    ${items},\n    (page) => ${reach(paging.next ?? [])},\n  )`,
    offset: () => `wire.pagesByOffset(\n    ${askedAt(`{ ${given} }`)},\n    ${items},\n    ${start(0)},\n  )`,
    number: () =>
      `wire.pagesByNumber(\n    ${askedAt(`{ ${given} }`)},\n    ${items},\n    ${start(paging.first ?? 1)},\n  )`,
    link: () =>
      `wire.pagesByLink(\n    ${label},\n    connection,\n    (connection, onAnswer) => ${asked("args").replace(", options)", ", { ...options, onAnswer })")},\n    ${items},\n    { credentials: [${queryCredentials(call, plan).map(quoted).join(", ")}], onAnswer: options?.onAnswer },\n  )`,
  }[paging.by]();
  const returned = printer.returnsFailures ? `wire.settledItems(${pages})` : pages;
  const doc = docComment([
    `All items of all pages of \`${names.call}\`; the next page is asked for when it is needed.`,
    deprecation(call.operation.deprecated),
  ]);
  const isHidden = names.performItems !== names.items;
  const hidden = `/** What \`${names.items}\` does; not marked itself, so that the grouped calls can use it. */\n`;
  return (
    `${isHidden ? hidden : doc}export function ${names.performItems}(\n  connection: ${contractNames(plan.name).connection},\n` +
    `  ${hasArgs ? `args: ${argsType}${argsNeeded ? "" : " = {}"}` : "args: wire.NoArguments = {}"},\n  options?: wire.CallOptions,\n` +
    `): ${resultType(item, true, names, printer)} {\n  return ${returned};\n}\n` +
    (isHidden ? `\n${doc}export const ${names.items} = ${names.performItems};\n` : "")
  );
}

/** A value inside a page, by wire names; what may be missing on the way is asked for with care. */
function reached(path: readonly string[], answer: Reference | undefined, printer: TypePrinter): string {
  let text = "page";
  let type = answer;
  let mayLack = answer?.nullable === true;
  for (const name of path) {
    const access = propertyAccess("", name);
    text += mayLack ? `?.${access.replace(/^\./, "")}` : access;
    const shape = type && behind(type.shape, printer);
    const field = shape?.kind === "record" ? shape.fields.find((each) => each.name === name) : undefined;
    type = field?.type;
    mayLack ||= field?.required !== true || field.type.nullable;
  }
  return text;
}

/** Names under which credentials of a call stand in its query. */
function queryCredentials(call: RestCall, plan: RestPlan): string[] {
  return call.operation.auth.flat().flatMap((name) => {
    const scheme = plan.authSchemes.get(name);
    return scheme?.kind === "key" && scheme.in === "query" ? [scheme.name] : [];
  });
}

/** Where arguments come from, and what becomes of them. */
interface ValueContext {
  readonly given: string;
  readonly printer: TypePrinter;
}

function requestFields(call: RestCall, plan: RestPlan, given: string, printer: TypePrinter): string[] {
  const { operation } = call;
  const parameters = call.arguments.filter((argument) => argument.source.kind === "parameter");
  const inLocation = (location: Parameter["in"]): PlannedArgument[] =>
    parameters.filter(({ source }) => source.kind === "parameter" && source.parameter.in === location);
  const context: ValueContext = { given, printer };
  const query = [
    ...inLocation("query").map((argument) => queryItem(argument, context)),
    ...inLocation("querystring").map((argument) => wholeQuery(argument, context)),
  ];
  const headers = headerItems(inLocation("header"), inLocation("cookie"), context);
  const [server] = operation.servers;
  const body = call.arguments.find(({ source }) => source.kind === "body");
  const auth = operation.auth
    .filter((schemes) => schemes.every((scheme) => plan.authSchemes.has(scheme)))
    // A client certificate belongs to the transport; what is left are the credentials that the app supplies.
    .map((schemes) => schemes.filter((scheme) => plan.authSchemes.get(scheme)?.kind !== "certificate"))
    .filter((schemes) => schemes.length > 0);
  const usual = acceptOf(call.answers);
  const [choice] = call.answerChoices;
  const accept = choice ? `args.answerType ?? ${quoted(choice.mediaType)}` : usual && quoted(usual);
  return [
    `call: ${quoted(callLabel(plan, call))}`,
    `method: ${quoted(operation.method.toUpperCase())}`,
    `path: ${pathText(operation.path, inLocation("path"), context)}`,
    ...(query.length > 0 ? [listField("query", query)] : []),
    ...(server ? [`base: wire.ownServer(connection, ${quoted(serverUrl(server))})`] : []),
    ...(headers.length > 0 ? [`headers: { ${headers.join(", ")} }`] : []),
    ...(body ? [`body: ${bodiesText(body, { given: "args", printer })}`] : []),
    ...(accept === undefined ? [] : [`accept: ${accept}`]),
    ...(auth.length > 0 ? [`auth: [${auth.map((schemes) => `[${schemes.map(quoted).join(", ")}]`).join(", ")}]`] : []),
    ...answerFields(call, printer),
    ...(call.failures.length > 0 ? [`failures: ${readTable(call.failures, printer)}`] : []),
  ];
}

/** How answers are read, by the media type that was asked for where there is a choice. */
function answerFields(call: RestCall, printer: TypePrinter): string[] {
  const [usual, ...others] = call.answerChoices;
  if (!usual) return readFields(call.answers, call.failures, printer);
  const ways = others.map(
    ({ mediaType, answers }) =>
      `args.answerType === ${quoted(mediaType)} ? { ${readFields(answers, call.failures, printer).join(", ")} } : `,
  );
  return [`...(${ways.join("")}{ ${readFields(call.answers, call.failures, printer).join(", ")} })`];
}

function readFields(
  answers: readonly PlannedResponse[],
  failures: readonly PlannedResponse[],
  printer: TypePrinter,
): string[] {
  return [...conversionFields(answers, failures, printer), `answers: ${readTable(answers, printer)}`];
}

/** How bodies become what the app has, where they differ from what is sent. */
function conversionFields(
  answers: readonly PlannedResponse[],
  failures: readonly PlannedResponse[],
  printer: TypePrinter,
): string[] {
  // `default` alone is said of successes and failures, which are not read alike where successes are streams.
  const keyOf = (response: PlannedResponse): string =>
    failures.includes(response) && answers.some(({ status }) => status === response.status)
      ? quoted(`failed ${response.status}`)
      : statusKey(response.status);
  const rows: string[] = [];
  let isExact = false;
  for (const response of [...answers, ...failures]) {
    const { type, form } = response;
    if (!type || form === "bytes") continue;
    const conversion = conversionOf(type, printer);
    const isChecked =
      printer.verifies &&
      (form === "json" || isStream(form)) &&
      !["eventTexts", "eventRecords"].includes(readAs(form, type, printer));
    if (conversion === undefined && !isChecked) continue;
    const needs = conversion !== undefined && needsExact(type, printer);
    isExact ||= needs;
    const converted = needs ? `wire.exact(${conversion})` : conversion;
    const text = isChecked
      ? `wire.verified(${checkOf(type, printer)}${converted === undefined ? "" : `, ${converted}`})`
      : converted;
    rows.push(`${keyOf(response)}: ${text ?? ""}`);
  }
  if (rows.length === 0) return [];
  return [`conversions: { ${rows.join(", ")} }`, ...(isExact ? ["parse: wire.parseExact"] : [])];
}

function statusKey(status: string): string {
  return /^[1-9]\d*$/.test(status) || status === "default" ? status : quoted(status);
}

function listField(name: string, items: readonly string[]): string {
  const line = `${name}: [${items.join(", ")}]`;
  return line.length <= 100 ? line : `${name}: [\n${items.map((item) => `        ${item},\n`).join("")}      ]`;
}

/** The path as a template literal: fixed text escaped, each parameter written by its style. */
function pathText(path: string, parameters: readonly PlannedArgument[], context: ValueContext): string {
  if (parameters.length === 0) return quoted(path);
  const parts = path.split(/(\{[^{}]+\})/).map((part) => {
    const name = /^\{([^{}]+)\}$/.exec(part)?.[1];
    const argument = parameters.find(({ source }) => source.kind === "parameter" && source.parameter.name === name);
    if (argument?.source.kind !== "parameter") return templateText(part);
    const { parameter } = argument.source;
    const value = argumentValue(argument, context);
    const explode = parameter.explode ? ", true" : "";
    if (parameter.style === "json") return `\${wire.jsonText(${value})}`;
    if (parameter.style === "label") return `\${wire.label(${value}${explode})}`;
    if (parameter.style === "matrix") return `\${wire.matrix(${quoted(parameter.name)}, ${value}${explode})}`;
    return `\${wire.segment(${value}, ${quoted(argument.name)}${explode})}`;
  });
  return `\`${parts.join("")}\``;
}

function argumentValue(argument: PlannedArgument, { given, printer }: ValueContext): string {
  const value = plainValue(argument, given);
  const conversion = conversionOf(argument.type, printer);
  return conversion === undefined ? value : `${conversion}.encode(${value})`;
}

function plainValue(argument: PlannedArgument, given: string): string {
  const value = given === "args" ? propertyAccess("args", argument.name) : `given.get(${quoted(argument.name)})`;
  if (!argument.standing || argument.source.kind !== "parameter") return value;
  return `${value} ?? ${propertyAccess("connection.standing", memberNameFrom(argument.source.parameter.name))}`;
}

function queryItem(argument: PlannedArgument, context: ValueContext): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a query parameter.");
  const { parameter } = argument.source;
  const value = argumentValue(argument, context);
  const name = quoted(parameter.name);
  switch (parameter.style) {
    case "spaceDelimited":
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.spaced(${name}, ${value})`;
    case "pipeDelimited":
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.piped(${name}, ${value})`;
    case "tabDelimited":
      return `wire.tabbed(${name}, ${value})`;
    case "deepObject":
      return `wire.deepObject(${name}, ${value})`;
    case "json":
      return `wire.jsonQuery(${name}, ${value})`;
    default:
      if (parameter.allowReserved) return `wire.reserved(${name}, ${value}${parameter.explode ? "" : ", false"})`;
      return parameter.explode ? `wire.form(${name}, ${value})` : `wire.form(${name}, ${value}, false)`;
  }
}

/** 3.2's whole query string: JSON as it is, or the pairs of a record. */
function wholeQuery(argument: PlannedArgument, context: ValueContext): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a query.");
  const value = argumentValue(argument, context);
  return argument.source.parameter.style === "json" ? `wire.jsonText(${value})` : `wire.form("", ${value})`;
}

function cookieItem(argument: PlannedArgument, context: ValueContext): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a cookie.");
  const { parameter } = argument.source;
  const value = argumentValue(argument, context);
  if (parameter.style === "json") return `wire.jsonQuery(${quoted(parameter.name)}, ${value})`;
  return `wire.form(${quoted(parameter.name)}, ${value}, false)`;
}

/** The headers of a call, with its cookies in one of them. */
function headerItems(
  headers: readonly PlannedArgument[],
  cookies: readonly PlannedArgument[],
  context: ValueContext,
): string[] {
  if (cookies.length === 0) return headers.map((argument) => headerItem(argument, context));
  const isCookie = ({ source }: PlannedArgument): boolean =>
    source.kind === "parameter" && source.parameter.name.toLowerCase() === "cookie";
  const pairs = [
    ...headers.filter(isCookie).map((argument) => `wire.header(${argumentValue(argument, context)})`),
    ...cookies.map((argument) => cookieItem(argument, context)),
  ];
  return [
    ...headers.filter((argument) => !isCookie(argument)).map((argument) => headerItem(argument, context)),
    `cookie: wire.cookies([${pairs.join(", ")}])`,
  ];
}

function headerItem(argument: PlannedArgument, context: ValueContext): string {
  if (argument.source.kind !== "parameter") throw new Error("A body is not a header.");
  const { parameter } = argument.source;
  if (parameter.style === "json")
    return `${propertyName(parameter.name)}: wire.jsonText(${argumentValue(argument, context)}, false)`;
  return `${propertyName(parameter.name)}: wire.header(${argumentValue(argument, context)}${parameter.explode ? ", true" : ""})`;
}

/** The body in the way the app chose, where there are several. */
function bodiesText(argument: PlannedArgument, context: ValueContext): string {
  const [usual, ...others] = bodyWays(argument).map((way) => ({
    mediaType: way.content.mediaType,
    text: bodyText({ ...argument, type: way.type }, way.content, context),
  }));
  const ways = others.map(({ mediaType, text }) => `args.bodyType === ${quoted(mediaType)} ? ${text} : `);
  return `${ways.join("")}${usual?.text ?? "undefined"}`;
}

function bodyText(argument: PlannedArgument, content: Content, context: ValueContext): string {
  const { form, mediaType, encoding } = content;
  const value = argumentValue(argument, context);
  switch (form) {
    case "json":
      if (needsExact(argument.type, context.printer))
        return mediaType === "application/json" || mediaType.includes("*")
          ? `wire.exactBody(${value})`
          : `wire.exactBody(${value}, ${quoted(mediaType)})`;
      return mediaType === "application/json" || mediaType.includes("*")
        ? `wire.jsonBody(${value})`
        : `wire.jsonBody(${value}, ${quoted(mediaType)})`;
    case "urlencoded":
      return `wire.urlencoded(${value}${formOptions(encoding, "urlencoded")})`;
    case "multipart":
      return `wire.multipart(${value}${formOptions(encoding, "multipart")})`;
    case "events":
    case "lines":
    case "sequence":
      return `wire.itemsBody(${value}, ${quoted(form)}, ${quoted(mediaType)})`;
    case "text":
      return `wire.textBody(${value}, ${quoted(mediaType)})`;
    default:
      return `wire.bytesBody(${value}, ${quoted(mediaType.includes("*") ? "application/octet-stream" : mediaType)})`;
  }
}

/** How fields of a form are written, as far as that is not as usual. */
function formOptions(encoding: Content["encoding"], form: "urlencoded" | "multipart"): string {
  const fields = [...(encoding ?? [])].flatMap(([name, { contentType, style, explode }]) => {
    const options = [
      ...(contentType !== undefined && !contentType.includes(",") ? [`type: ${quoted(contentType)}`] : []),
      ...(form === "urlencoded" && style !== undefined && style !== "form" ? [`style: ${quoted(style)}`] : []),
      ...(form === "urlencoded" && explode !== undefined ? [`explode: ${String(explode)}`] : []),
    ];
    return options.length > 0 ? [`${propertyName(name)}: { ${options.join(", ")} }`] : [];
  });
  return fields.length === 0 ? "" : `, { ${fields.join(", ")} }`;
}

function acceptOf(answers: readonly PlannedResponse[]): string | undefined {
  const types = [...new Set(answers.flatMap((answer) => (answer.mediaType === undefined ? [] : [answer.mediaType])))];
  return types.length > 0 ? types.join(", ") : undefined;
}

function readTable(responses: readonly PlannedResponse[], printer: TypePrinter): string {
  if (responses.length === 0) return '{ "2XX": "none" }';
  const rows = responses.map(
    ({ status, form, type }) => `${statusKey(status)}: ${quoted(readAs(form, type, printer))}`,
  );
  return `{ ${rows.join(", ")} }`;
}

/** What the runtime is told about how a body is read. */
export function readAs(form: PlannedResponse["form"], type: Reference | undefined, printer: TypePrinter): string {
  if (form === "events" && type) return eventsAs(type, printer);
  if (form === "urlencoded") return "text";
  return form === "multipart" ? "bytes" : form;
}

/** What of an event is the item: its data as JSON, its data as text, or the event itself. */
function eventsAs(type: Reference, printer: TypePrinter): string {
  const shape = behind(type.shape, printer);
  if (shape.kind === "text") return "eventTexts";
  const data = shape.kind === "record" ? shape.fields.find((field) => field.name === "data") : undefined;
  const isEvent = data !== undefined && behind(data.type.shape, printer).kind === "text";
  return isEvent ? "eventRecords" : "events";
}

/** Whether the call's answer comes item by item. */
export function isStreaming(call: RestCall): boolean {
  return call.answers.some(({ form }) => isStream(form));
}

const rareStyles = ["label", "matrix", "spaceDelimited", "pipeDelimited", "tabDelimited", "deepObject", "json"];

/** Runtime files a call needs beyond the plain ones. */
export function runtimeFilesOf(call: RestCall): string[] {
  const isRare = (parameter: Parameter): boolean => rareStyles.includes(parameter.style) || parameter.allowReserved;
  const rare = call.arguments.some(({ source }) => source.kind === "parameter" && isRare(source.parameter));
  const bodyForms = call.arguments.flatMap((argument) => bodyWays(argument).map(({ content }) => content.form));
  const isForm = bodyForms.some((form) => form === "urlencoded" || form === "multipart");
  return [
    ...(rare ? ["rarerParameters.ts"] : []),
    ...(isForm ? ["forms.ts", "rarerParameters.ts"] : []),
    ...(bodyForms.some((form) => form === "bytes" || form === "multipart") ? ["progress.ts"] : []),
    ...(call.paging ? ["pages.ts"] : []),
    ...(isStreaming(call) || bodyForms.some(isStream) ? ["streams.ts", "events.ts", "pause.ts"] : []),
    ...(call.headers.length > 0 ? ["headers.ts"] : []),
    ...(call.arguments.some(({ source }) => source.kind === "parameter" && source.parameter.in === "cookie")
      ? ["cookies.ts"]
      : []),
  ];
}
