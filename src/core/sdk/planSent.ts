import type { Field, Parameter, Reference, RestOperation, SentRequest } from "../contract/model.js";
import { sortedBy } from "../text/sortedBy.js";
import { typeNameFrom } from "./nameScope.js";
import { planContent, preferredContent } from "./planContent.js";
import type { PlannedSent, RestCall } from "./sdkPlan.js";
import type { TypePlanner } from "./typePlanner.js";

/** Plans the types of webhooks, and of the callbacks of every call. */
export function planSent(
  webhooks: readonly SentRequest[],
  calls: readonly RestCall[],
  planner: TypePlanner,
): PlannedSent[] {
  const planned = [
    ...webhooks.map((each) => planOne(each, `${typeNameFrom(each.name)}Webhook`, { of: undefined, planner })),
    ...calls.flatMap((call) =>
      call.operation.callbacks.map((each) =>
        planOne(each, `${typeNameFrom(call.name)}${typeNameFrom(each.name)}Callback`, { of: call.operation, planner }),
      ),
    ),
  ];
  return sortedBy(planned, (each) => each.name);
}

function planOne(
  request: SentRequest,
  wanted: string,
  { of, planner }: { readonly of: RestOperation | undefined; readonly planner: TypePlanner },
): PlannedSent {
  const { method, parameters, body, responses } = request.operation;
  const key = `${wanted} ${method} ${request.address ?? ""}`;
  const name = planner.scope.claim(method === "post" ? wanted : wanted + typeNameFrom(method), key);
  const replyName = planner.scope.claim(`${name}Reply`, `${key} reply`);
  const fields = (location: Parameter["in"]): Field[] =>
    parameters
      .filter((parameter) => parameter.in === location)
      .map((parameter) => ({
        ...parameter,
        type: planner.reference(parameter.type, "answer", [name, typeNameFrom(parameter.name)]),
      }));
  const content = body && preferredContent(body.contents);
  const answered = responses.find((response) => response.status.startsWith("2"));
  const reply = answered && preferredContent(answered.contents);
  return {
    name,
    replyName,
    request,
    ...(of ? { of } : {}),
    query: fields("query"),
    headers: fields("header"),
    ...(content ? { body: planContent(content, "answer", { name: [name, "Body"], planner }) } : {}),
    ...(reply
      ? {
          reply: planContent(reply, "request", {
            name: reply.type.nullable ? [replyName, "Content"] : replyName,
            planner,
          }),
        }
      : {}),
  };
}

/** Returns the types that the app receives. */
export function receivedBy({ query, headers, body }: PlannedSent): Reference[] {
  return [...[...query, ...headers].map((field) => field.type), ...(body ? [body] : [])];
}

/** Returns the types that the app sends back. */
export function repliedTo({ reply }: PlannedSent): Reference[] {
  return reply ? [reply] : [];
}
