import { callWords, graphqlCallWords } from "../../../src/core/sdk/lower/documentation.js";
import type { ContractNames } from "../../../src/core/sdk/contractNames.js";
import type { LoweredCall, LoweredGraphqlCall } from "../../../src/core/sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../src/core/sdk/lower/reading.js";
import type { SentValue } from "../../../src/core/sdk/lower/request.js";
import type { PlannedResponse } from "../../../src/core/sdk/sdkPlan.js";
import { toyComment, toyText, toyType, type ToySpelling } from "./spelling.js";

/** Prints one REST call: its request, and how each status is read. */
export function printCall(
  { call, label, request, ...lowered }: LoweredCall,
  names: ContractNames,
  spelling: ToySpelling,
): string {
  const { call: name, pages } = names.call(call);
  const given = ({ argument, standing, encode }: SentValue): string =>
    [
      names.argument(argument),
      ...(standing === undefined ? [] : [`or ${standing}`]),
      ...(encode ? ["encoded"] : []),
    ].join(" ");
  const path = request.path.map((step) =>
    step.kind === "text" ? step.text : `{${given(step.value)} as ${step.writer}}`,
  );
  const query = request.query.map(
    ({ name: key, writer, value }) => `${toyText(key ?? "")} ${given(value)} as ${writer}`,
  );
  const headers = request.headers.map(({ name: key, value }) => `${toyText(key)} ${given(value)}`);
  const body = request.body?.ways.map(
    ({ value, type, writer }) => `${given(value)} ${toyType(type, spelling)} as ${writer.kind}`,
  );
  const takes = call.arguments.map((argument) => `${names.argument(argument)} ${toyType(argument.type, spelling)}`);
  const lines = [
    `call ${name}(${takes.join(", ")}) ${toyText(label)}`,
    `  asks ${request.method} ${toyText(path.join(""))}`,
    ...query.map((text) => `  query ${text}`),
    ...headers.map((text) => `  header ${text}`),
    ...(body ?? []).map((text) => `  body ${text}`),
    ...request.auth.map((schemes) => `  auth ${schemes.join(" and ")}`),
    ...readings("answers", lowered.answers, call.answers, spelling),
    ...readings("fails", lowered.failures, call.failures, spelling),
    ...(lowered.pages && pages !== undefined ? [`  pages ${pages} by ${lowered.pages.paging.by}`] : []),
  ];
  return `${toyComment(callWords(call), "")}${lines.join("\n")}\n`;
}

function readings(
  what: string,
  found: readonly StatusReading[],
  responses: readonly PlannedResponse[],
  spelling: ToySpelling,
): string[] {
  return found.map(({ status, as, conversion }) => {
    const type = responses.find((response) => response.status === status)?.type;
    return `  ${what} ${status} as ${as}${type ? ` ${toyType(type, spelling)}` : ""}${conversion ? " decoded" : ""}`;
  });
}

/** Prints one GraphQL call. */
export function printGraphqlCall(
  { call, label }: LoweredGraphqlCall,
  names: ContractNames,
  spelling: ToySpelling,
): string {
  const takes = call.variables.map(({ name, type }) => `${name} ${toyType(type, spelling)}`);
  return `${toyComment(graphqlCallWords(call), "")}call ${names.call(call).call}(${takes.join(", ")}) ${toyText(label)}\n  sends ${toyText(call.operation.text)}\n  answers ${toyType(call.answer, spelling)}\n`;
}
