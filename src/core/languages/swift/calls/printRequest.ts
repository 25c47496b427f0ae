import { resolveShape } from "../../../contract/resolveShape.js";
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
import { memberNameFrom } from "../../../sdk/nameScope.js";
import type { RestContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { filesForm } from "../filesOf.js";
import { spelled } from "../names/identifiers.js";
import { argumentName } from "../names/names.js";
import { standingName } from "./printConnection.js";
import { admitsNull, printForm, printShapeForm } from "../types/printType.js";
import { listed } from "../swiftFile.js";

/**
 * Prints statements that create the request of a call. The compiler checks each statement on its own.
 *
 * @param name the variable for the request
 */
export function printRequest(
  { label, request }: LoweredCall,
  {
    name,
    body,
    accept,
  }: { readonly name: string; readonly body: string | undefined; readonly accept: string | undefined },
  context: RestContext,
): string {
  const { method, path, server, auth } = request;
  const { wire } = context;
  const [first, ...rest] = path;
  const start = first?.kind === "text" ? quoted(first.text) : '""';
  const steps = first?.kind === "text" ? rest : path;
  const changes = [
    ...steps.map((step) => `    ${name}.path += ${pathText(step, context)}`),
    ...(server === undefined ? [] : [`    ${name}.server = ${quoted(server)}`]),
    ...request.query.map((step) => `    ${name}.query.append(${queryText(step, context)})`),
    ...request.headers.map(
      (step) => `    ${name}.headers.append((${quoted(step.name)}, ${headerText(step, context)}))`,
    ),
    ...(request.cookies.length > 0
      ? [`    ${name}.headers.append(("cookie", ${cookiesText(request.cookies, context)}))`]
      : []),
    ...(body === undefined ? [] : [`    ${name}.body = ${body}`]),
    ...(accept === undefined ? [] : [`    ${name}.accept = ${quoted(accept)}`]),
    ...(auth.length === 0
      ? []
      : [`    ${name}.auth = [${auth.map((schemes) => `[${schemes.map(quoted).join(", ")}]`).join(", ")}]`]),
  ];
  const made = listed(
    `    ${changes.length === 0 ? "let" : "var"} ${name} = ${wire}.RestRequest`,
    [`call: ${quoted(label)}`, `method: ${quoted(method)}`, `path: ${start}`],
    "",
  );
  return [made, ...changes].map((line) => `${line}\n`).join("");
}

/** The value of an argument in JSON, which may be nil unless it is required. */
function valueText({ argument, standing }: SentValue, context: RestContext): { text: string; mayLack: boolean } {
  const name = spelled(argumentName(argument));
  const parameter =
    standing === undefined
      ? undefined
      : context.contract.connection.standing.find(({ parameter: each }) => memberNameFrom(each.name) === standing);
  const write = printShapeForm(argument.type.shape, "write", context);
  if (parameter) {
    const given = `${name} ?? self.${spelled(standingName(parameter.member))}`;
    if (!admitsNull(parameter.parameter.type, context)) return { text: `${write}(${given})`, mayLack: false };
    return { text: `(${given}).map(${write})`, mayLack: true };
  }
  if (argument.required && standing === undefined)
    return { text: `${printForm(argument.type, "write", context)}(${name})`, mayLack: false };
  return { text: `${name}.map(${write})`, mayLack: true };
}

function certain(value: SentValue, context: RestContext): string {
  const { text, mayLack } = valueText(value, context);
  return mayLack ? `${text} ?? .null` : text;
}

function pathText(step: PathStep, context: RestContext): string {
  if (step.kind === "text") return quoted(step.text);
  const value = certain(step.value, context);
  const explode = step.explode ? ", explode: true" : "";
  const { wire } = context;
  switch (step.writer) {
    case "json":
      return `${wire}.jsonSegment(${value})`;
    case "label":
      return `${wire}.label(${value}${explode})`;
    case "matrix":
      return `${wire}.matrix(${quoted(step.name)}, ${value}${explode})`;
    case "segment":
      return `${wire}.segment(${quoted(argumentName(step.value.argument))}, ${value}${explode})`;
  }
}

function queryText({ writer, name, value, explode }: QueryStep, context: RestContext): string {
  const { text } = valueText(value, context);
  const exploded = (writer === "form" || writer === "reserved") && !explode ? ", explode: false" : "";
  return `${context.wire}.${writer === "json" ? "jsonQuery" : writer}(${name === undefined ? "nil" : quoted(name)}, ${text}${exploded})`;
}

function headerText({ writer, value, explode }: HeaderStep, context: RestContext): string {
  const { text } = valueText(value, context);
  if (writer === "json") return `${context.wire}.jsonHeader(${text})`;
  return `${context.wire}.header(${text}${explode ? ", explode: true" : ""})`;
}

function cookiesText(cookies: readonly CookieStep[], context: RestContext): string {
  const { wire } = context;
  const pairs = cookies.map(({ writer, name, value }) => {
    const { text } = valueText(value, context);
    if (writer === "whole") return `${wire}.header(${text})`;
    return writer === "json"
      ? `${wire}.jsonQuery(${quoted(name)}, ${text})`
      : `${wire}.form(${quoted(name)}, ${text}, explode: false)`;
  });
  return `${wire}.cookies(${pairs.join(", ")})`;
}

/**
 * Returns an expression for one way to send a body.
 *
 * @param value the variable with the body
 */
export function bodyText(
  { writer, type }: BodyWay,
  { value, mayLack }: { readonly value: string; readonly mayLack: boolean },
  context: RestContext,
): string {
  const { wire } = context;
  const written = mayLack
    ? `${value}.map(${printShapeForm(type.shape, "write", context)})`
    : `${printForm(type, "write", context)}(${value})`;
  switch (writer.kind) {
    case "json":
      return `${wire}.jsonBody(${written}${writer.mediaType === undefined ? "" : `, type: ${quoted(writer.mediaType)}`})`;
    case "urlencoded":
      return `${wire}.urlencoded(${written}${waysText(writer.fields)})`;
    case "multipart":
      return `${wire}.multipart(${written}${filesText(type.shape, { value, mayLack }, context)}${waysText(writer.fields)})`;
    case "items": {
      const item = type.shape.kind === "list" ? printForm(type.shape.item, "write", context) : `${wire}.writeJSON`;
      const items = mayLack ? `${value}.map { $0.map(${item}) }` : `${value}.map(${item})`;
      return `${wire}.itemsBody(${items}, .${writer.form}, type: ${quoted(writer.mediaType)})`;
    }
    case "text":
      return `${wire}.textBody(${mayLack ? `${written}.map(${wire}.plainText)` : `${wire}.plainText(${written})`}, type: ${quoted(writer.mediaType)})`;
    case "bytes":
      return `${wire}.bytesBody(${value}, type: ${quoted(writer.mediaType)})`;
  }
}

function filesText(
  shape: BodyWay["type"]["shape"],
  { value, mayLack }: { readonly value: string; readonly mayLack: boolean },
  context: RestContext,
): string {
  const record = resolveShape(shape, context.contract.types);
  const form = record.kind === "record" && context.filed.has(record) ? filesForm(shape, context) : undefined;
  if (form === undefined) return "";
  return `, files: ${mayLack ? `${value}.map(${form}) ?? .init()` : `${form}(${value})`}`;
}

function waysText(fields: readonly FormField[]): string {
  if (fields.length === 0) return "";
  const rows = fields.map((field) => {
    const options = [
      ...(field.mediaType === undefined ? [] : [`type: ${quoted(field.mediaType)}`]),
      ...(field.style === undefined ? [] : [`style: ${quoted(field.style)}`]),
      ...(field.explode === undefined ? [] : [`explode: ${String(field.explode)}`]),
    ];
    return `${quoted(field.name)}: .init(${options.join(", ")})`;
  });
  return `, ways: [${rows.join(", ")}]`;
}
