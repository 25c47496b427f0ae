import { sentences } from "../../../sdk/lower/sentences.js";
import type { Field } from "../../../contract/model.js";
import { sentWords } from "../../../sdk/lower/documentation.js";
import type { PlannedSent } from "../../../sdk/sdkPlan.js";
import { comment, docComment, propertyName, quoted } from "../names/escape.js";
import { typeIdentifier } from "../names/identifiers.js";
import { printField } from "../types/printShapes.js";
import { printReference, type TypePrinter } from "../types/printType.js";

/** Prints the types of a webhook or callback: the request, and the response that the server expects. */
export function printSent(sent: PlannedSent, printer: TypePrinter): string {
  const { request, query, headers, body, reply } = sent;
  const { operation } = request;
  const name = typeIdentifier(sent.name);
  const fields = [
    `  readonly method: ${quoted(operation.method.toUpperCase())};\n`,
    ...section("query", sentences.webhookQuery, { fields: query, printer }),
    ...section("headers", sentences.webhookHeaders, { fields: headers, printer }),
    ...(body
      ? [
          `${docComment({ paragraphs: [operation.body?.description ?? ""] }, "  ")}  readonly body${operation.body?.required === true ? "" : "?"}: ${printReference(body, printer, "exact")};\n`,
        ]
      : []),
  ];
  const type = `${docComment(sentWords(sent))}export interface ${name} {\n${fields.join("")}}\n`;
  if (!reply) return type;
  const replyName = typeIdentifier(sent.replyName);
  // A record that is the whole response already has this name.
  if (reply.shape.kind === "named" && printer.names.get(reply.shape.key) === replyName) return type;
  const answer = printReference(reply, printer, "lenient");
  return `${type}\n${comment(sentences.reply(name))}export type ${replyName} = ${answer};\n`;
}

function section(
  key: string,
  words: string,
  { fields, printer }: { readonly fields: readonly Field[]; readonly printer: TypePrinter },
): string[] {
  if (fields.length === 0) return [];
  const inner = fields.map((field) => printField(field, printer, "exact").replace(/^(?=.)/gm, "  "));
  const absent = fields.every((field) => !field.required) ? "?" : "";
  return [`  /** ${words} */\n  readonly ${propertyName(key)}${absent}: {\n${inner.join("")}  };\n`];
}
