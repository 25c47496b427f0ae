import type { CallOptions } from "./connection.js";
import { events } from "./events.js";
import { excerpt } from "./excerpt.js";
import { failure, isFailure } from "./failure.js";
import {
  callName,
  dataOf,
  payloadOf,
  request,
  resultOf,
  type GraphqlConnection,
  type GraphqlOperation,
  type GraphqlResult,
  type GraphqlWays,
  type Subscribed,
  type Subscriptions,
} from "./graphql.js";
import { pause } from "./pause.js";

/** How a subscription reconnects after it was disconnected. */
export interface Reconnecting {
  /** The largest number of attempts without a result in between. Default: 5; 0 for none. */
  readonly tries?: number;
  /** Milliseconds before the first attempt. Each further pause is twice as long, at most 30 s. Default: 500. */
  readonly waitMs?: number;
}

/** The outcome of one result of a subscription. */
export type ResultOutcome<Answer, Failure = Error> =
  | { readonly ok: true; readonly answer: Answer; readonly failure?: undefined }
  | { readonly ok: false; readonly failure: Failure; readonly answer?: undefined };

/**
 * Performs a subscription: one value for each result, until it is complete or the consumer's `break`. A result with
 * errors ends it, unless the options of the call handle such results.
 *
 * @throws the failure of the subscription, also for errors in a result
 */
export async function* subscribe<Answer, Variables>(
  connection: GraphqlConnection,
  operation: GraphqlOperation<Answer, Variables, unknown>,
  variables: Variables,
  options?: CallOptions,
  ways: GraphqlWays = {},
): AsyncGenerator<Answer, void, undefined> {
  try {
    for await (const { ok, answer, failure: failed } of results(connection, operation, variables, options, ways)) {
      if (ok) yield answer;
      else if (options?.onErrors) options.onErrors(failed);
      else throw failed;
    }
  } catch (error) {
    if (isFailure(error)) connection.onFailure?.(error);
    throw error;
  }
}

/** Performs a subscription: the outcome of each result. One with errors does not end it; any other failure does. */
export async function* subscribeOutcomes<Answer, Variables, Failure>(
  connection: GraphqlConnection,
  operation: GraphqlOperation<Answer, Variables, unknown>,
  variables: Variables,
  options?: CallOptions,
  ways: GraphqlWays = {},
): AsyncGenerator<ResultOutcome<Answer, Failure>, void, undefined> {
  try {
    for await (const outcome of results(connection, operation, variables, options, ways)) {
      if (!outcome.ok) connection.onFailure?.(outcome.failure);
      yield outcome as ResultOutcome<Answer, Failure>;
    }
  } catch (error) {
    if (!isFailure(error)) throw error;
    connection.onFailure?.(error);
    yield { ok: false, failure: error as Failure };
  }
}

/** The results of a subscription. Errors in a result do not end it (GraphQL specification, section 6.2.3.2). */
async function* results<Answer, Variables>(
  connection: GraphqlConnection,
  operation: GraphqlOperation<Answer, Variables, unknown>,
  variables: Variables,
  options: CallOptions | undefined,
  ways: GraphqlWays,
): AsyncGenerator<ResultOutcome<Answer, Error & { readonly call: string }>, void, undefined> {
  const call = callName(connection, operation.name);
  const carry = connection.subscriptions ?? overEvents();
  const payload = payloadOf(connection, operation, variables, ways);
  for await (const result of carry({ connection, call, payload, options, ways })) {
    let outcome: ResultOutcome<Answer, Error & { readonly call: string }>;
    try {
      outcome = { ok: true, answer: dataOf(call, result, ways) as Answer };
    } catch (error) {
      if (!isFailure(error)) throw error;
      outcome = { ok: false, failure: error };
    }
    yield outcome;
  }
}

/** Subscriptions over server-sent events, each a request of its own. */
export function overEvents(reconnecting: Reconnecting = {}): Subscriptions {
  return (subscribed) => reconnected(subscribed, reconnecting, listen);
}

async function* listen(subscribed: Subscribed, begun: () => void): AsyncGenerator<GraphqlResult, void, undefined> {
  const { connection, call, ways } = subscribed;
  const exchanged = await request(subscribed, "text/event-stream");
  const { response, done } = exchanged;
  const isStream = /^text\/event-stream/i.test(response.headers.get("content-type") ?? "");
  const parse = ways.parse ?? connection.json.parse;
  if (!response.ok || !isStream) {
    const text = await response.text().finally(done);
    const { status: httpStatus, headers } = response;
    const refused = resultOf(text, parse);
    if (refused?.errors) dataOf(call, refused, {});
    throw failure(call, `the server responded with ${String(httpStatus)} without a stream: ${excerpt(headers, text)}`, {
      status: "unexpected",
      httpStatus,
      headers,
      body: text,
    });
  }
  begun();
  for await (const { event, data } of events(exchanged, { lastId: "" }, true)) {
    if (event === "complete") return;
    if (event !== "next") continue;
    const result = resultOf(data, parse);
    if (!result)
      throw failure(call, "an event is not a GraphQL result", { status: "malformed", httpStatus: 200, body: data });
    yield result;
  }
}

const longestWaitMs = 30_000;

/**
 * Reconnects a subscription that was disconnected after it had begun. The failure of the first attempt is thrown to the
 * app.
 *
 * @throws the failure of the last attempt
 */
export async function* reconnected(
  subscribed: Subscribed,
  { tries = 5, waitMs = 500 }: Reconnecting,
  begin: (subscribed: Subscribed, begun: () => void) => AsyncGenerator<GraphqlResult, void, undefined>,
): AsyncGenerator<GraphqlResult, void, undefined> {
  let left: number | undefined;
  const begun = (): void => {
    left ??= tries;
  };
  for (;;) {
    try {
      for await (const result of begin(subscribed, begun)) {
        left = tries;
        yield result;
      }
      return;
    } catch (error) {
      const isBroken = isFailure(error) && Reflect.get(error, "status") === "unreachable";
      if (!isBroken || left === undefined || left <= 0) throw error;
      const { call, options } = subscribed;
      await pause(Math.min(longestWaitMs, waitMs * 2 ** (tries - left)), call, options?.signal, error);
      left--;
    }
  }
}
