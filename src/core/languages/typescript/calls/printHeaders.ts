import { sentences } from "../../../sdk/lower/sentences.js";
import { nothingDecoded } from "../../../sdk/lower/values/decodedLeaf.js";
import { headerWords } from "../../../sdk/lower/documentation.js";
import type { HeaderReading } from "../../../sdk/lower/headerReading.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { comment, docComment, propertyName, quoted } from "../names/escape.js";
import { printReference, type TypePrinter } from "../types/printType.js";

/** Prints the headers of a call's responses and failures, and the function that reads them; "" if there are none. */
export function printHeaders({ call, headers }: LoweredCall, context: RestContext): string {
  if (headers.length === 0) return "";
  const names = context.names.rest(call);
  // Headers are read as they are sent.
  const printer: TypePrinter = { ...context.printer, settings: { ...nothingDecoded, choices: "closed" } };
  const fields = headers.map(({ header: { name, field } }) => {
    const type = printReference(field.type, printer, "exact");
    return `${docComment(headerWords(field), "  ")}  readonly ${propertyName(name)}: ${type} | undefined;\n`;
  });
  const values = headers.map((reading) => `    ${propertyName(reading.header.name)}: ${headerValue(reading)},\n`);
  return (
    `${comment(sentences.headers(names.call))}export interface ${names.headers} {\n${fields.join("")}}\n\n` +
    `/** Reads the headers that \`${names.call}\` passes to \`onAnswer\`, or the headers of its failures. */\n` +
    `export function ${names.headersReader}(headers: Headers): ${names.headers} {\n  return {\n${values.join("")}  };\n}\n`
  );
}

function headerValue({ header, isList, as, values }: HeaderReading): string {
  const readers = { number: "wire.asNumber", boolean: "wire.asBoolean", text: "wire.asText" } as const;
  const reader =
    as === "oneOf" ? `wire.asOneOf(${values.map((value) => quoted(String(value))).join(", ")})` : readers[as];
  return `wire.${isList ? "readHeaders" : "readHeader"}(headers, ${quoted(header.field.name)}, ${reader})`;
}
