import type { Field, Reference } from "../../../contract/model.js";
import { fieldWords, sentWords } from "../../../sdk/lower/documentation.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { memberNames } from "../../../sdk/lower/values/partNames.js";
import type { PlannedSent } from "../../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { comment, deprecation, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled } from "../names/identifiers.js";
import { besideNested } from "../names/nestedNames.js";
import { orNull, printForm, printReference } from "../types/printType.js";

/**
 * Prints readers for requests from the server: for each webhook and callback, the reader of its body and the writer of
 * the reply.
 */
export function printWebhooks(context: RestContext & FileContext): string[] {
  return context.contract.plan.sent.map((sent) => printOne(sent, context));
}

function printOne(sent: PlannedSent, context: RestContext & FileContext): string {
  const { request, query, headers, body, reply } = sent;
  const { paragraphs, deprecated } = sentWords(sent);
  const { uses } = context;
  const members = [
    `    public const val method: String = ${quoted(request.operation.method.toUpperCase())}\n`,
    ...printNames("Query", sentences.webhookQuery, query),
    ...printNames("Headers", sentences.webhookHeaders, headers),
    ...(body ? [printRead(sent, body, context)] : []),
    ...(reply
      ? [
          `${docComment({ paragraphs: [sentences.reply(context.names.sent(sent))] }, "    ")}    public fun reply(value: ${typeOf(reply, context)}): String = ${uses.wire("jsonText")}(${printForm(reply, "write", context)}.write(value))\n`,
        ]
      : []),
  ];
  const doc = docComment({ paragraphs, deprecated });
  return `${doc}public object ${context.names.sent(sent)} {\n${members.join("\n")}}\n`;
}

function printRead({ request }: PlannedSent, body: NonNullable<PlannedSent["body"]>, context: FileContext): string {
  const type = typeOf(body, context);
  const read = `${context.uses.wire("received")}(body, ${printForm(body, "read", context)})`;
  const isNeeded = request.operation.body?.required === true;
  const doc = comment(request.operation.body?.description, sentences.webhookRead).replace(/^(?=.)/gm, "    ");
  return isNeeded
    ? `${doc}    public fun read(body: String): ${type} = ${read}\n`
    : `${doc}    public fun read(body: String): ${orNull(type)} = if (body.isEmpty()) null else ${read}\n`;
}

/** A type as written next to the objects with names. */
function typeOf(reference: Reference, context: FileContext): string {
  return besideNested(printReference(reference, context), ["Query", "Headers"], context);
}

/** Prints an object with the names of query parameters or headers, which are strings for the app's server. */
function printNames(name: "Query" | "Headers", words: string, fields: readonly Field[]): string[] {
  if (fields.length === 0) return [];
  const names = memberNames(fields);
  const lines = fields.map((field) => {
    const { paragraphs, deprecated } = fieldWords(field);
    const said = [...paragraphs, ...(field.required ? [] : [sentences.mayBeMissing])];
    const doc = docComment({ paragraphs: said }, "        ") + deprecation(deprecated, "        ");
    const property = spelled(memberIdentifier(names.get(field) ?? field.name, new Set(), ""));
    return `${doc}        public const val ${property}: String = ${quoted(field.name)}\n`;
  });
  return [`${docComment({ paragraphs: [words] }, "    ")}    public object ${name} {\n${lines.join("")}    }\n`];
}
