import { operationLabel, type Reference } from "../../contract/model.js";
import type {
  GraphqlCall,
  GraphqlPlan,
  PlannedArgument,
  PlannedResponse,
  RestCall,
  RestPlan,
} from "../../sdk/sdkPlan.js";
import { propertyName } from "./escape.js";
import { codeBlock, codeSpan, groupTitle, oneLine, paragraphs } from "./markdown.js";
import { graphqlCallNames } from "./printGraphqlCall.js";
import { answerType, isStreaming, restCallNames } from "./printRestCall.js";
import { factsOf } from "./printShapes.js";
import { printReference, type TypePrinter } from "./printType.js";
import { sampleOf } from "./sampleValue.js";

/** Prints the page of one or several groups that share a module: every call with all there is to know about it. */
export function printRestPage(plan: RestPlan, calls: readonly RestCall[], printer: TypePrinter): string {
  const groups = [...new Set(calls.map((call) => call.group))];
  const parts = groups.map((group) => {
    const tag = plan.tags.get(group);
    const own = calls.filter((call) => call.group === group).map((call) => restCall(call, plan, printer).trimEnd());
    return `# ${groupTitle(plan, group)}\n\n${paragraphs(tag?.description ?? tag?.summary)}${own.join("\n\n")}\n`;
  });
  return parts.join("\n");
}

/** Prints the page of one GraphQL call: how it is made, what it takes and answers, and the text that is sent. */
export function printGraphqlPage(plan: GraphqlPlan, call: GraphqlCall, printer: TypePrinter): string {
  return `# ${oneLine(plan.title)}\n\n${graphqlCall(call, printer).trimEnd()}\n\nSent:\n\n${codeBlock(call.operation.text, "graphql")}`;
}

function restCall(call: RestCall, plan: RestPlan, printer: TypePrinter): string {
  const names = restCallNames(call);
  const { operation, paging } = call;
  const given = sampleArguments(
    call.arguments.filter((argument) => argument.required),
    names.args,
    printer,
  );
  const sample = isStreaming(call)
    ? `${given.before}for await (const item of ${names.call}(connection${given.text})) console.log(item);`
    : `${given.before}await ${names.call}(connection${given.text});`;
  const answers =
    call.answers.length === 1 && call.answerChoices.length === 0 ? (call.answers[0]?.description ?? "") : "";
  return (
    `## ${names.call}\n\n` +
    (operation.deprecated === undefined ? "" : `**Deprecated.** ${oneLine(operation.deprecated)}`.trim() + "\n\n") +
    paragraphs(operation.summary) +
    (operation.description === operation.summary ? "" : paragraphs(operation.description)) +
    `${codeSpan(operationLabel(operation))}\n\n${codeBlock(sample)}\n` +
    section(
      "Arguments",
      call.arguments.flatMap((argument) => argumentRows(argument, printer)),
    ) +
    `Answers ${codeSpan(answerType(call, printer))}${isStreaming(call) ? ", item by item" : ""}${answers === "" ? "" : `: ${oneLine(answers)}`}\n\n` +
    section(
      "By `answerType`",
      call.answerChoices.map((choice) => codeSpan(choice.mediaType)),
    ) +
    (call.answers.length > 1
      ? section(
          "By status",
          call.answers.map((answer) => responseRow(answer, printer)),
        )
      : "") +
    (paging ? `${codeSpan(names.items)} goes through all items of all pages.\n\n` : "") +
    section(
      "Fails with",
      call.failures.map((failure) => responseRow(failure, printer)),
    ) +
    authWords(call, plan)
  );
}

function argumentRows(argument: PlannedArgument, printer: TypePrinter): string[] {
  const { source } = argument;
  const where = source.kind === "parameter" ? source.parameter.in : "body";
  const node = source.kind === "parameter" ? source.parameter : source.body;
  const ways = source.kind === "body" ? source.others : [];
  const words = [oneLine(node.description ?? ""), ...factsOf(argument.type.shape).map(oneLine)].filter(
    (each) => each !== "",
  );
  const needed = argument.required ? "needed" : argument.standing ? "supplied by the connection" : "optional";
  return [
    `${codeSpan(argument.name)} ${codeSpan(printReference(argument.type, printer, "lenient"))}, ${where}, ${needed}${words.length > 0 ? `: ${words.join(" ")}` : ""}`,
    ...ways.map(
      ({ content, type }) =>
        `${codeSpan(argument.name)} ${codeSpan(printReference(type, printer, "lenient"))} with ${codeSpan("bodyType")} ${codeSpan(JSON.stringify(content.mediaType))}`,
    ),
  ];
}

function responseRow({ status, type, description }: PlannedResponse, printer: TypePrinter): string {
  const body = type ? ` ${codeSpan(printReference(type, printer, "exact"))}` : "";
  const words = oneLine(description ?? "");
  return `${codeSpan(status)}${body}${words === "" ? "" : `: ${words}`}`;
}

function authWords(call: RestCall, plan: RestPlan): string {
  const alternatives = call.operation.auth.map((schemes) => schemes.filter((scheme) => plan.authSchemes.has(scheme)));
  if (alternatives.every((schemes) => schemes.length === 0)) return "";
  const said = alternatives.map((schemes) => (schemes.length === 0 ? "nothing" : schemes.map(codeSpan).join(" and ")));
  return `Needs ${said.join(", or ")}.\n\n`;
}

function section(title: string, rows: readonly string[]): string {
  return rows.length === 0 ? "" : `${title}:\n\n${rows.map((row) => `- ${row}\n`).join("")}\n`;
}

function graphqlCall(call: GraphqlCall, printer: TypePrinter): string {
  const names = graphqlCallNames(call);
  const given = sampleArguments(
    call.variables.filter((field) => field.required),
    names.variables,
    printer,
  );
  const sample =
    call.operation.root === "subscription"
      ? `${given.before}for await (const answer of ${names.call}(connection${given.text})) console.log(answer);`
      : `${given.before}await ${names.call}(connection${given.text});`;
  const variables = call.variables.map(
    (field) =>
      `${codeSpan(field.name)} ${codeSpan(printReference(field.type, printer, "lenient"))}, ${field.required ? "needed" : "optional"}`,
  );
  return (
    `## ${names.call}\n\n${paragraphs(call.operation.description)}The ${call.operation.root} ${codeSpan(call.operation.name)}.\n\n${codeBlock(sample)}\n` +
    section("Variables", variables) +
    `Answers ${codeSpan(printReference(call.answer, printer, "exact"))}\n\n`
  );
}

/** The arguments of a sample call, and what has to stand before it when they are too large to be written out. */
function sampleArguments(
  required: readonly { readonly name: string; readonly type: Reference }[],
  typeName: string,
  printer: TypePrinter,
): { before: string; text: string } {
  if (required.length === 0) return { before: "", text: "" };
  const parts = required.map(({ name, type }) => ({ name, sample: sampleOf(type, printer) }));
  if (parts.some(({ sample }) => sample === undefined))
    return { before: `declare const args: ${typeName};\n`, text: ", args" };
  return {
    before: "",
    text: `, { ${parts.map(({ name, sample }) => `${propertyName(name)}: ${sample ?? ""}`).join(", ")} }`,
  };
}
