import { headerWords } from "../../../sdk/lower/documentation.js";
import type { HeaderReading } from "../../../sdk/lower/headerReading.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { comment, deprecation, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled, takenProperties } from "../names/identifiers.js";

/** Prints the class that reads the headers of a call; "" if it declares none. */
export function printHeaders({ call, headers }: LoweredCall, context: RestContext & FileContext): string {
  if (headers.length === 0) return "";
  const names = context.names.call(call);
  const type = context.uses.other("okhttp3.Headers");
  const members = headers.map((reading) => {
    const { field, name } = reading.header;
    const { paragraphs } = headerWords(field);
    const property = memberIdentifier(name, ownNames, "Value");
    return `${docComment({ paragraphs }, "    ")}${deprecation(field.deprecated, "    ")}    public val ${spelled(property)}: ${headerType(reading, context)}?\n        get() = ${readText(reading, context)}\n`;
  });
  return `${comment(sentences.headers(names.call))}public class ${names.headers}(private val all: ${type}) {\n${members.join("\n")}}\n`;
}

const ownNames: ReadonlySet<string> = new Set([...takenProperties, "all"]);

function isWhole({ header, isList }: HeaderReading, { contract }: FileContext): boolean {
  const shape = resolveShape(header.field.type.shape, contract.types);
  const item = isList && shape.kind === "list" ? resolveShape(shape.item.shape, contract.types) : shape;
  return item.kind === "integer";
}

function headerType(reading: HeaderReading, context: FileContext): string {
  const item =
    reading.as === "number"
      ? isWhole(reading, context)
        ? "Long"
        : "Double"
      : reading.as === "boolean"
        ? "Boolean"
        : "String";
  return reading.isList ? `List<${item}>` : item;
}

function readText(reading: HeaderReading, context: FileContext): string {
  const { uses } = context;
  const read = uses.wire(reading.isList ? "readAll" : "read");
  const name = quoted(reading.header.field.name);
  if (reading.as === "number")
    return `all.${read}(${name}, ::${uses.wire(isWhole(reading, context) ? "asWhole" : "asNumber")})`;
  if (reading.as === "boolean") return `all.${read}(${name}, ::${uses.wire("asTruth")})`;
  if (reading.as === "text") return `all.${read}(${name}) { it }`;
  const values = reading.values.map((value) => quoted(String(value)));
  return `all.${read}(${name}) { text -> text.takeIf { it in setOf(${values.join(", ")}) } }`;
}
