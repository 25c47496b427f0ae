import type { Field } from "../../contract/model.js";
import { sentWords } from "../../sdk/lower/documentation.js";
import { sentences } from "../../sdk/lower/sentences.js";
import type { PlannedSent } from "../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "./contractContext.js";
import { comment, docComment, quoted } from "./escape.js";
import { orNull, printForm, printReference } from "./printType.js";

/** Prints what the server sends on its own: for each webhook and callback what reads its body, and writes what is expected back. */
export function printWebhooks(context: RestContext & FileContext): string[] {
  return context.contract.plan.sent.map((sent) => printOne(sent, context));
}

function printOne(sent: PlannedSent, context: RestContext & FileContext): string {
  const { request, query, headers, body, reply } = sent;
  const { paragraphs, deprecated } = sentWords(sent);
  const { uses } = context;
  const listed = [
    ...parameterWords(sentences.webhookQuery, query),
    ...parameterWords(sentences.webhookHeaders, headers),
  ];
  const members = [
    `    public const val method: String = ${quoted(request.operation.method.toUpperCase())}\n`,
    ...(body ? [printRead(sent, body, context)] : []),
    ...(reply
      ? [
          `${docComment({ paragraphs: [sentences.reply(context.names.sent(sent))] }, "    ")}    public fun reply(value: ${printReference(reply, context)}): String = ${uses.wire("jsonText")}(${printForm(reply, "write", context)}.write(value))\n`,
        ]
      : []),
  ];
  const doc = docComment({ paragraphs: [...paragraphs, ...listed], deprecated });
  return `${doc}public object ${context.names.sent(sent)} {\n${members.join("\n")}}\n`;
}

function printRead({ request }: PlannedSent, body: NonNullable<PlannedSent["body"]>, context: FileContext): string {
  const type = printReference(body, context);
  const read = `${context.uses.wire("received")}(body, ${printForm(body, "read", context)})`;
  const isNeeded = request.operation.body?.required === true;
  const doc = comment(request.operation.body?.description, sentences.webhookRead).replace(/^(?=.)/gm, "    ");
  return isNeeded
    ? `${doc}    public fun read(body: String): ${type} = ${read}\n`
    : `${doc}    public fun read(body: String): ${orNull(type)} = if (body.isEmpty()) null else ${read}\n`;
}

function parameterWords(title: string, fields: readonly Field[]): string[] {
  if (fields.length === 0) return [];
  return [
    `${title}\n${fields.map(({ name, required, description }) => `- \`${name}\`${required ? "" : " (may be missing)"}${description === undefined ? "" : `: ${description.trim().replace(/\s+/g, " ")}`}`).join("\n")}`,
  ];
}
