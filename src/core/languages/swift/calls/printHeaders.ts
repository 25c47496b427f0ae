import { resolveShape } from "../../../contract/resolveShape.js";
import { headerWords } from "../../../sdk/lower/documentation.js";
import type { HeaderReading } from "../../../sdk/lower/headerReading.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { NameScope } from "../../../sdk/nameScope.js";
import type { ContractContext, RestContext } from "../contractContext.js";
import { comment, deprecation, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled } from "../names/identifiers.js";

/** Prints the struct that reads the headers of a call; "" if it declares none. */
export function printHeaders({ call, headers }: LoweredCall, context: RestContext): string {
  if (headers.length === 0) return "";
  const names = context.names.call(call);
  const { access, wire } = context;
  const scope = new NameScope(["all"]);
  const members = headers.map((reading) => {
    const { field, name } = reading.header;
    const { paragraphs } = headerWords(field);
    const property = spelled(scope.claim(memberIdentifier(name), field.name));
    return `${docComment({ paragraphs }, "  ")}${deprecation(field.deprecated, "  ")}  ${access}var ${property}: ${headerType(reading, context)}? {\n    ${readText(reading, context)}\n  }\n`;
  });
  return (
    `${comment("", sentences.headers(names.call))}${access}struct ${names.headers}: Swift.Sendable {\n` +
    `  private let all: ${wire}.Headers\n\n  ${access}init(_ headers: ${wire}.Headers) {\n    all = headers\n  }\n\n${members.join("\n")}}\n`
  );
}

function itemKind({ header, isList }: HeaderReading, { contract }: ContractContext): string {
  const shape = resolveShape(header.field.type.shape, contract.types);
  const item = isList && shape.kind === "list" ? resolveShape(shape.item.shape, contract.types) : shape;
  return item.kind === "integer" ? "Int64" : "Double";
}

function headerType(reading: HeaderReading, context: ContractContext): string {
  const item = reading.as === "number" ? itemKind(reading, context) : reading.as === "boolean" ? "Bool" : "String";
  return reading.isList ? `[Swift.${item}]` : `Swift.${item}`;
}

function readText(reading: HeaderReading, context: ContractContext): string {
  const { wire } = context;
  const read = `all.${reading.isList ? "readAll" : "read"}(${quoted(reading.header.field.name)}`;
  if (reading.as === "number") return `${read}, ${wire}.header${itemKind(reading, context)})`;
  if (reading.as === "boolean") return `${read}, ${wire}.headerBool)`;
  if (reading.as === "text") return `${read}, ${wire}.headerText)`;
  const values = reading.values.map((value) => quoted(String(value)));
  return `${read}) { text in [${values.join(", ")}].contains(text) ? text : nil }`;
}
