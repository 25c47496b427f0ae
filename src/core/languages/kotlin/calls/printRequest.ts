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
import type { FileContext, RestContext } from "../contractContext.js";
import { quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { withArguments } from "../kotlinFile.js";
import { argumentName } from "../names/names.js";
import { admitsNull, printForm, printShapeForm } from "../types/printType.js";
import { standingName } from "./printConnection.js";

interface ValueContext extends FileContext {
  readonly contract: RestContext["contract"];
  /** The function whose receiver is the connection, if that is not the innermost one. */
  readonly self: string | undefined;
}

/** Prints an expression for the request of a call. */
export function printRequest(
  { label, request }: LoweredCall,
  {
    body,
    accept,
    self,
  }: { readonly body: string | undefined; readonly accept: string | undefined; readonly self: string | undefined },
  given: RestContext & FileContext,
): string {
  const context = { ...given, self };
  const { method, path, server, auth } = request;
  const query = request.query.map((step) => queryText(step, context));
  const headers = [
    ...request.headers.map((step) => `${quoted(step.name)} to ${headerText(step, context)}`),
    ...(request.cookies.length > 0 ? [`"cookie" to ${cookiesText(request.cookies, context)}`] : []),
  ];
  const list = (name: string, items: readonly string[]): string[] =>
    items.length === 0 ? [] : [withArguments(`${name} = listOf`, items, { after: "", indent: "            " })];
  const fields = [
    `call = ${quoted(label)}`,
    `method = ${quoted(method)}`,
    `path = ${pathText(path, context)}`,
    ...(server === undefined ? [] : [`server = ${quoted(server)}`]),
    ...list("query", query),
    ...list("headers", headers),
    ...(body === undefined ? [] : [`body = ${body}`]),
    ...(accept === undefined ? [] : [`accept = ${quoted(accept)}`]),
    ...list(
      "auth",
      auth.map((schemes) => `listOf(${schemes.map(quoted).join(", ")})`),
    ),
  ];
  return `${context.uses.wire("RestRequest")}(\n${fields.map((field) => `            ${field},\n`).join("")}        )`;
}

/** The value of an argument in JSON, which may be null unless it is required. */
function valueText({ argument, standing }: SentValue, context: ValueContext): { text: string; mayLack: boolean } {
  const name = spelled(argumentName(argument));
  const parameter =
    standing === undefined
      ? undefined
      : context.contract.connection.standing.find(({ parameter: each }) => memberNameFrom(each.name) === standing);
  if (parameter) {
    const given = `(${name} ?: this${context.self === undefined ? "" : `@${spelled(context.self)}`}.${spelled(standingName(parameter.member))})`;
    if (!admitsNull(parameter.parameter.type, context))
      return { text: `${printShapeForm(argument.type.shape, "write", context)}.write(${given})`, mayLack: false };
    return {
      text: `${given}?.let { ${printShapeForm(argument.type.shape, "write", context)}.write(it) }`,
      mayLack: true,
    };
  }
  if (argument.required && standing === undefined)
    return { text: `${printForm(argument.type, "write", context)}.write(${name})`, mayLack: false };
  return { text: `${name}?.let { ${printShapeForm(argument.type.shape, "write", context)}.write(it) }`, mayLack: true };
}

function certain(value: SentValue, context: ValueContext): string {
  const { text, mayLack } = valueText(value, context);
  if (!mayLack) return text;
  return `(${text} ?: ${context.uses.other("kotlinx.serialization.json.JsonNull")})`;
}

function pathText(steps: readonly PathStep[], context: ValueContext): string {
  if (steps.length === 0) return '""';
  const parts = steps.map((step) => {
    if (step.kind === "text") return quoted(step.text);
    const value = certain(step.value, context);
    const explode = step.explode ? ", explode = true" : "";
    const { uses } = context;
    switch (step.writer) {
      case "json":
        return `${uses.wire("jsonSegment")}(${value})`;
      case "label":
        return `${uses.wire("label")}(${value}${explode})`;
      case "matrix":
        return `${uses.wire("matrix")}(${quoted(step.name)}, ${value}${explode})`;
      case "segment":
        return `${uses.wire("segment")}(${quoted(argumentName(step.value.argument))}, ${value}${explode})`;
    }
  });
  return parts.join(" + ");
}

function queryText({ writer, name, value, explode }: QueryStep, context: ValueContext): string {
  const { text } = valueText(value, context);
  const writers = {
    form: "form",
    reserved: "reserved",
    spaced: "spaced",
    piped: "piped",
    tabbed: "tabbed",
    deepObject: "deepObject",
    json: "jsonQuery",
  };
  const exploded = (writer === "form" || writer === "reserved") && !explode ? ", explode = false" : "";
  return `${context.uses.wire(writers[writer])}(${name === undefined ? "null" : quoted(name)}, ${text}${exploded})`;
}

function headerText({ writer, value, explode }: HeaderStep, context: ValueContext): string {
  const { text } = valueText(value, context);
  if (writer === "json") return `${context.uses.wire("jsonHeader")}(${text})`;
  return `${context.uses.wire("header")}(${text}${explode ? ", explode = true" : ""})`;
}

function cookiesText(cookies: readonly CookieStep[], context: ValueContext): string {
  const { uses } = context;
  const pairs = cookies.map(({ writer, name, value }) => {
    const { text } = valueText(value, context);
    if (writer === "whole") return `${uses.wire("header")}(${text})`;
    return writer === "json"
      ? `${uses.wire("jsonQuery")}(${quoted(name)}, ${text})`
      : `${uses.wire("form")}(${quoted(name)}, ${text}, explode = false)`;
  });
  return `${uses.wire("cookies")}(${pairs.join(", ")})`;
}

/**
 * Returns an expression for one way to send a body.
 *
 * @param value the variable with the body
 */
export function bodyText(
  { writer, type }: BodyWay,
  { value, mayLack }: { readonly value: string; readonly mayLack: boolean },
  context: RestContext & FileContext,
): string {
  const { uses } = context;
  const written = (): string =>
    mayLack
      ? `${value}?.let { ${printShapeForm(type.shape, "write", context)}.write(it) }`
      : `${printForm(type, "write", context)}.write(${value})`;
  switch (writer.kind) {
    case "json":
      return `${uses.wire("jsonBody")}(${written()}${writer.mediaType === undefined ? "" : `, ${quoted(writer.mediaType)}`})`;
    case "urlencoded":
      return `${uses.wire("urlencoded")}(${written()}${waysText(writer.fields, "ways", context)})`;
    case "multipart":
      return `${uses.wire("multipart")}(${written()}${filesText(type.shape, { value, mayLack }, context)}${waysText(writer.fields, "ways", context)})`;
    case "items": {
      const kind = { events: "Events", lines: "Lines", sequence: "Sequence" }[writer.form];
      const item = type.shape.kind === "list" ? printForm(type.shape.item, "write", context) : uses.wire("AnyForm");
      return `${uses.wire("itemsBody")}(${value}${mayLack ? "?" : ""}.map { ${item}.write(it) }, ${uses.wire("ItemKind")}.${kind}, ${quoted(writer.mediaType)})`;
    }
    case "text":
      return `${uses.wire("textBody")}(${mayLack ? `${written()}?.let { ${uses.wire("text")}(it) }` : `${uses.wire("text")}(${written()})`}, ${quoted(writer.mediaType)})`;
    case "bytes":
      return `${uses.wire("bytesBody")}(${value}, ${quoted(writer.mediaType)})`;
  }
}

function filesText(
  shape: BodyWay["type"]["shape"],
  { value, mayLack }: { readonly value: string; readonly mayLack: boolean },
  context: FileContext,
): string {
  const record = resolveShape(shape, context.contract.types);
  const form = printShapeForm(shape, "write", context);
  if (record.kind !== "record" || !context.filed.has(record)) return "";
  return `, files = ${mayLack ? `${value}?.let { ${form}.files(it) }.orEmpty()` : `${form}.files(${value})`}`;
}

function waysText(fields: readonly FormField[], name: string, { uses }: FileContext): string {
  if (fields.length === 0) return "";
  const rows = fields.map((field) => {
    const options = [
      ...(field.mediaType === undefined ? [] : [`type = ${quoted(field.mediaType)}`]),
      ...(field.style === undefined ? [] : [`style = ${quoted(field.style)}`]),
      ...(field.explode === undefined ? [] : [`explode = ${String(field.explode)}`]),
    ];
    return `${quoted(field.name)} to ${uses.wire("FieldWay")}(${options.join(", ")})`;
  });
  return `, ${name} = mapOf(${rows.join(", ")})`;
}
