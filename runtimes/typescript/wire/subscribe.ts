import type { CallOptions, Connection } from "./connection.js";
import { events } from "./events.js";
import { failure } from "./failure.js";
import { callName, dataOf, post, type GraphqlOperation } from "./graphql.js";

/**
 * Performs a subscription over server-sent events: one answer for each `next` event, until `complete`, the end of the
 * stream, or the consumer's `break`.
 */
export async function* subscribe<Answer, Variables>(
  connection: Connection,
  operation: GraphqlOperation<Answer, Variables>,
  variables: Variables,
  options?: CallOptions,
): AsyncGenerator<Answer, void, undefined> {
  const call = callName(connection, operation.name);
  const exchanged = await post(connection, operation, variables, "text/event-stream", options);
  const { response, done } = exchanged;
  if (!response.ok || !response.body) {
    done();
    const { status: httpStatus, headers } = response;
    throw failure(call, `the server answered ${String(httpStatus)} without a stream`, {
      status: "unexpected",
      httpStatus,
      headers,
      body: "",
    });
  }
  for await (const { event, data } of events(exchanged)) {
    if (event === "complete") return;
    if (event === "next") yield dataOf(call, resultOf(call, data) as { data?: Answer });
  }
}

function resultOf(call: string, data: string): unknown {
  try {
    return JSON.parse(data) as unknown;
  } catch (error) {
    throw failure(call, "an event is not JSON", { status: "malformed", httpStatus: 200, body: data }, error);
  }
}
