import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type {
  BodyWay,
  CookieStep,
  FormField,
  HeaderStep,
  PathStep,
  QueryStep,
  SentValue,
} from "../../../sdk/lower/request.js";
import type { RestContext } from "../contractContext.js";
import { propertyAccess, propertyName, quoted, templateText } from "../names/escape.js";
import { argumentKey } from "../names/names.js";
import { conversionText } from "../types/printConversions.js";
import { printReadings, readTable } from "./printReading.js";
import type { TypePrinter } from "../types/printType.js";

/** The parts of a call's function that go to the runtime. */
export interface PrintedRequest {
  /** Lines before it. */
  readonly before: readonly string[];
  /** The fields of the request. */
  readonly fields: readonly string[];
}

/** The source of arguments, and their conversion. */
interface ValueContext {
  /** Parameters are read from `given`, because reading a deprecated one from `args` would cause a warning. */
  readonly isByName: boolean;
  readonly printer: TypePrinter;
}

/** Prints how the request of a call is written and its responses are read. */
export function printRequest(lowered: LoweredCall, context: RestContext): PrintedRequest {
  const { call, label, request, failures, answersByType } = lowered;
  const { printer } = context;
  const isByName = call.arguments.some(
    ({ source }) => source.kind === "parameter" && source.parameter.deprecated !== undefined,
  );
  const values: ValueContext = { isByName, printer };
  const { method, path, server, body, auth } = request;
  const query = request.query.map((step) => queryText(step, values));
  const headers = [
    ...request.headers.map((step) => headerText(step, values)),
    ...(request.cookies.length > 0 ? [cookiesText(request.cookies, values)] : []),
  ];
  const [choice] = answersByType;
  const usual = request.accept === undefined ? undefined : quoted(request.accept);
  const accept = choice ? `args.answerType ?? ${quoted(choice.mediaType)}` : usual;
  return {
    before: isByName ? ["  const given = new Map<string, unknown>(Object.entries(args));"] : [],
    fields: [
      `call: ${quoted(label)}`,
      `method: ${quoted(method)}`,
      `path: ${pathText(path, values)}`,
      ...(query.length > 0 ? [listField("query", query)] : []),
      ...(server === undefined ? [] : [`base: wire.ownServer(connection, ${quoted(server)})`]),
      ...(headers.length > 0 ? [`headers: { ${headers.join(", ")} }`] : []),
      ...(body ? [`body: ${bodiesText(body.ways, { isByName: false, printer })}`] : []),
      ...(accept === undefined ? [] : [`accept: ${accept}`]),
      ...(auth.length > 0
        ? [`auth: [${auth.map((schemes) => `[${schemes.map(quoted).join(", ")}]`).join(", ")}]`]
        : []),
      ...printReadings(lowered, printer),
      ...(failures.length > 0 ? [`failures: ${readTable(failures)}`] : []),
    ],
  };
}

const widestList = 100;

function listField(name: string, items: readonly string[]): string {
  const line = `${name}: [${items.join(", ")}]`;
  return line.length <= widestList ? line : `${name}: [\n${items.map((item) => `        ${item},\n`).join("")}      ]`;
}

function valueText({ argument, standing, encode }: SentValue, { isByName, printer }: ValueContext): string {
  const key = argumentKey(argument);
  const given = isByName ? `given.get(${quoted(key)})` : propertyAccess("args", key);
  const value = standing === undefined ? given : `${given} ?? ${propertyAccess("connection.standing", standing)}`;
  return encode ? `${conversionText(encode, printer)}.encode(${value})` : value;
}

/** The path as a template literal: fixed text is escaped, and each parameter is written by its style. */
function pathText(steps: readonly PathStep[], values: ValueContext): string {
  if (steps.every(({ kind }) => kind === "text"))
    return quoted(steps.map((step) => (step.kind === "text" ? step.text : "")).join(""));
  const parts = steps.map((step) => {
    if (step.kind === "text") return templateText(step.text);
    const value = valueText(step.value, values);
    const explode = step.explode ? ", true" : "";
    switch (step.writer) {
      case "json":
        return `\${wire.jsonText(${value})}`;
      case "label":
        return `\${wire.label(${value}${explode})}`;
      case "matrix":
        return `\${wire.matrix(${quoted(step.name)}, ${value}${explode})}`;
      case "segment":
        return `\${wire.segment(${value}, ${quoted(argumentKey(step.value.argument))}${explode})}`;
    }
  });
  return `\`${parts.join("")}\``;
}

function queryText({ writer, name, value, explode }: QueryStep, values: ValueContext): string {
  const text = valueText(value, values);
  if (name === undefined) return writer === "json" ? `wire.jsonText(${text})` : `wire.form("", ${text})`;
  const writers = { spaced: "spaced", piped: "piped", tabbed: "tabbed", deepObject: "deepObject", json: "jsonQuery" };
  if (writer === "form" || writer === "reserved")
    return `wire.${writer}(${quoted(name)}, ${text}${explode ? "" : ", false"})`;
  return `wire.${writers[writer]}(${quoted(name)}, ${text})`;
}

function headerText({ writer, name, value, explode }: HeaderStep, values: ValueContext): string {
  const text = valueText(value, values);
  if (writer === "json") return `${propertyName(name)}: wire.jsonText(${text}, false)`;
  return `${propertyName(name)}: wire.header(${text}${explode ? ", true" : ""})`;
}

function cookiesText(cookies: readonly CookieStep[], values: ValueContext): string {
  const pairs = cookies.map(({ writer, name, value }) => {
    const text = valueText(value, values);
    if (writer === "whole") return `wire.header(${text})`;
    return writer === "json"
      ? `wire.jsonQuery(${quoted(name)}, ${text})`
      : `wire.form(${quoted(name)}, ${text}, false)`;
  });
  return `cookie: wire.cookies([${pairs.join(", ")}])`;
}

/** The body in the app's choice of media type, if there are several. */
function bodiesText([usual, ...others]: readonly BodyWay[], values: ValueContext): string {
  const ways = others.map((way) => `args.bodyType === ${quoted(way.mediaType)} ? ${bodyText(way, values)} : `);
  return `${ways.join("")}${usual ? bodyText(usual, values) : "undefined"}`;
}

function bodyText({ writer, value }: BodyWay, values: ValueContext): string {
  const text = valueText(value, values);
  switch (writer.kind) {
    case "json": {
      const type = writer.mediaType === undefined ? "" : `, ${quoted(writer.mediaType)}`;
      return `wire.${writer.isExact ? "exactBody" : "jsonBody"}(${text}${type})`;
    }
    case "urlencoded":
    case "multipart":
      return `wire.${writer.kind}(${text}${formOptions(writer.fields)})`;
    case "items":
      return `wire.itemsBody(${text}, ${quoted(writer.form)}, ${quoted(writer.mediaType)})`;
    case "text":
    case "bytes":
      return `wire.${writer.kind}Body(${text}, ${quoted(writer.mediaType)})`;
  }
}

function formOptions(fields: readonly FormField[]): string {
  const rows = fields.map(({ name, mediaType, style, explode }) => {
    const options = [
      ...(mediaType === undefined ? [] : [`type: ${quoted(mediaType)}`]),
      ...(style === undefined ? [] : [`style: ${quoted(style)}`]),
      ...(explode === undefined ? [] : [`explode: ${String(explode)}`]),
    ];
    return `${propertyName(name)}: { ${options.join(", ")} }`;
  });
  return rows.length === 0 ? "" : `, { ${rows.join(", ")} }`;
}
