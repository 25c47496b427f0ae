import { operationLabel } from "../../contract/model.js";
import type { CallFile } from "../../sdk/lower/callFiles.js";
import { groupsAbove } from "../../sdk/lower/callFiles.js";
import { factOf } from "../../sdk/lower/documentation.js";
import type { LoweredCall, LoweredGraphql, LoweredGraphqlCall, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan } from "../../sdk/sdkPlan.js";
import { codeBlock, codeSpan, oneLine, paragraphs, section } from "./markdown.js";
import type { PageSpelling } from "./pageSpelling.js";

/** Returns the page of the calls that share a file, with all details of every call. */
export function restPage({ groups }: CallFile<LoweredCall>, { plan }: LoweredRest, spelling: PageSpelling): string {
  const parts = [...groups].map(([group, calls]) => {
    const tag = plan.tags.get(group);
    const own = calls.map((lowered) => restCall(lowered, plan, spelling).trimEnd());
    return `# ${groupTitle(plan, group)}\n\n${paragraphs(tag?.description ?? tag?.summary)}${own.join("\n\n")}\n`;
  });
  return parts.join("\n");
}

/** Returns a group's name after the names of its parent tags. */
export function groupTitle(plan: RestPlan, group: string): string {
  return [...groupsAbove(group, plan.tags), group].map(oneLine).join(" / ");
}

/** Returns the page of one GraphQL call: a sample, its variables, its response and the text that is sent. */
export function graphqlPage(lowered: LoweredGraphqlCall, { plan }: LoweredGraphql, spelling: PageSpelling): string {
  return `# ${oneLine(plan.title)}\n\n${graphqlCall(lowered, spelling).trimEnd()}\n\nSent:\n\n${codeBlock(lowered.call.operation.text, "graphql")}`;
}

function restCall(lowered: LoweredCall, plan: RestPlan, spelling: PageSpelling): string {
  const { call, isStream } = lowered;
  const { operation, paging } = call;
  const answers =
    call.answers.length === 1 && call.answerChoices.length === 0 ? (call.answers[0]?.description ?? "") : "";
  const rows = (responses: readonly PlannedResponse[]): string[] =>
    responses.map((response) => responseRow(response, spelling));
  return (
    `## ${spelling.callName(lowered)}\n\n` +
    (operation.deprecated === undefined ? "" : `**Deprecated.** ${oneLine(operation.deprecated)}`.trim() + "\n\n") +
    paragraphs(operation.summary) +
    (operation.description === operation.summary ? "" : paragraphs(operation.description)) +
    `${codeSpan(operationLabel(operation))}\n\n${codeBlock(spelling.sample(lowered), spelling.fence)}\n` +
    section(
      "Arguments",
      call.arguments.flatMap((argument) => argumentRows(argument, lowered, spelling)),
    ) +
    `Returns ${codeSpan(spelling.answerType(lowered))}${isStream ? ", item by item" : ""}${answers === "" ? "" : `: ${oneLine(answers)}`}\n\n` +
    section(
      spelling.otherAnswers.title,
      call.answerChoices.map((choice) => spelling.otherAnswers.row(lowered, choice.mediaType)),
    ) +
    (call.answers.length > 1 ? section("By status", rows(call.answers)) : "") +
    (paging ? `${codeSpan(spelling.pagesName(lowered))} iterates over all items of all pages.\n\n` : "") +
    section("Fails with", rows(call.failures)) +
    authWords(call, plan)
  );
}

function argumentRows(argument: PlannedArgument, lowered: LoweredCall, spelling: PageSpelling): string[] {
  const { source } = argument;
  const where = source.kind === "parameter" ? source.parameter.in : "body";
  const node = source.kind === "parameter" ? source.parameter : source.body;
  const ways = source.kind === "body" ? source.others : [];
  const name = codeSpan(spelling.argumentName(argument));
  const words = [oneLine(node.description ?? ""), oneLine(factOf(argument.type.shape) ?? "")].filter(
    (each) => each !== "",
  );
  const needed = argument.required ? "required" : argument.standing ? "supplied by the connection" : "optional";
  return [
    `${name} ${codeSpan(spelling.type(argument.type, "given"))}, ${where}, ${needed}${words.length > 0 ? `: ${words.join(" ")}` : ""}`,
    ...ways.map(({ content: { mediaType }, type }) => spelling.otherBody(lowered, { mediaType, type })),
  ];
}

function responseRow({ status, type, description }: PlannedResponse, spelling: PageSpelling): string {
  const body = type ? ` ${codeSpan(spelling.type(type, "got"))}` : "";
  const words = oneLine(description ?? "");
  return `${codeSpan(status)}${body}${words === "" ? "" : `: ${words}`}`;
}

function authWords(call: RestCall, plan: RestPlan): string {
  const alternatives = call.operation.auth.map((schemes) => schemes.filter((scheme) => plan.authSchemes.has(scheme)));
  if (alternatives.every((schemes) => schemes.length === 0)) return "";
  const said = alternatives.map((schemes) => (schemes.length === 0 ? "nothing" : schemes.map(codeSpan).join(" and ")));
  return `Requires ${said.join(", or ")}.\n\n`;
}

function graphqlCall(lowered: LoweredGraphqlCall, spelling: PageSpelling): string {
  const { operation, variables, answer } = lowered.call;
  const rows = variables.map(
    (field) =>
      `${codeSpan(field.name)} ${codeSpan(spelling.type(field.type, "given"))}, ${field.required ? "required" : "optional"}`,
  );
  return (
    `## ${spelling.callName(lowered)}\n\n${paragraphs(operation.description)}The ${operation.root} ${codeSpan(operation.name)}.\n\n${codeBlock(spelling.sample(lowered), spelling.fence)}\n` +
    section("Variables", rows) +
    `Returns ${codeSpan(spelling.type(answer, "got"))}\n\n`
  );
}
