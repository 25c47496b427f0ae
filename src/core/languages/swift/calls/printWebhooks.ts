import type { Field } from "../../../contract/model.js";
import { fieldWords, sentWords } from "../../../sdk/lower/documentation.js";
import { memberNames } from "../../../sdk/lower/values/partNames.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { NameScope } from "../../../sdk/nameScope.js";
import type { PlannedSent } from "../../../sdk/sdkPlan.js";
import type { ContractContext, RestContext } from "../contractContext.js";
import { comment, deprecation, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled } from "../names/identifiers.js";
import { orNil, printForm, printReference } from "../types/printType.js";

/**
 * Prints readers for requests from the server: for each webhook and callback, the reader of its body and the writer of
 * the reply.
 */
export function printWebhooks(context: RestContext): string[] {
  return context.contract.plan.sent.map((sent) => printOne(sent, context));
}

function printOne(sent: PlannedSent, context: RestContext): string {
  const { access, names, wire } = context;
  const { request, query, headers, body, reply } = sent;
  const name = names.sent(sent);
  const members = [
    `  ${access}static let method = ${quoted(request.operation.method.toUpperCase())}\n`,
    ...printNames("Query", { words: sentences.webhookQuery, fields: query }, context),
    ...printNames("Headers", { words: sentences.webhookHeaders, fields: headers }, context),
    ...(body ? [printRead(sent, body, context)] : []),
    ...(reply
      ? [
          `${comment("  ", sentences.reply(name))}  ${access}static func reply(_ value: ${printReference(reply, context)}) -> Foundation.Data {\n    Foundation.Data(${wire}.jsonBytes(${printForm(reply, "write", context)}(value)))\n  }\n`,
        ]
      : []),
  ];
  return `${docComment(sentWords(sent))}${access}enum ${name} {\n${members.join("\n")}}\n`;
}

function printRead({ request }: PlannedSent, body: NonNullable<PlannedSent["body"]>, context: ContractContext): string {
  const { access, wire } = context;
  const type = printReference(body, context);
  const isNeeded = request.operation.body?.required === true;
  const read = `try ${wire}.received(body, ${printForm(body, "read", context)})`;
  return (
    comment("  ", request.operation.body?.description, sentences.webhookRead) +
    `  ${access}static func read(\n    _ body: Foundation.Data\n  ) throws(${wire}.UnreadableWebhook) -> ${isNeeded ? type : orNil(type)} {\n    ${isNeeded ? read : `body.isEmpty ? nil : ${read}`}\n  }\n`
  );
}

/** Prints the names of query parameters or headers, which are strings for the app's server. */
function printNames(
  name: "Query" | "Headers",
  { words, fields }: { readonly words: string; readonly fields: readonly Field[] },
  { access }: ContractContext,
): string[] {
  if (fields.length === 0) return [];
  const names = memberNames(fields);
  const scope = new NameScope();
  const lines = fields.map((field) => {
    const { paragraphs, deprecated } = fieldWords(field);
    const said = [...paragraphs, ...(field.required ? [] : [sentences.mayBeMissing])];
    const doc = docComment({ paragraphs: said }, "    ") + deprecation(deprecated, "    ");
    const property = scope.claim(memberIdentifier(names.get(field) ?? field.name), field.name);
    return `${doc}    ${access}static let ${spelled(property)} = ${quoted(field.name)}\n`;
  });
  return [`${comment("  ", words)}  ${access}enum ${name} {\n${lines.join("")}  }\n`];
}
