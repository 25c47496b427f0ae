import { supplied, type CallOptions, type Connection } from "./connection.js";
import { exchange, startHeaders, type Exchanged } from "./exchange.js";
import { failure, isFailure, type GraphqlError } from "./failure.js";

/** One GraphQL operation: the text that is sent, and the types of its variables and answer. */
export interface GraphqlOperation<Answer, Variables> {
  readonly kind: "query" | "mutation" | "subscription";
  readonly name: string;
  readonly text: string;
  /** Never set: carries the types. */
  readonly types?: (variables: Variables) => Answer;
}

interface GraphqlResult<Answer> {
  readonly data?: Answer | null;
  readonly errors?: readonly GraphqlError[];
}

/** Performs a query or mutation: its data, or a failure is thrown. */
export async function execute<Answer, Variables>(
  connection: Connection,
  operation: GraphqlOperation<Answer, Variables>,
  variables: Variables,
  options?: CallOptions,
): Promise<Answer> {
  const call = callName(connection, operation.name);
  let exchanged: Exchanged | undefined;
  try {
    const accept = "application/graphql-response+json, application/json";
    exchanged = await post(connection, operation, variables, accept, options);
    return dataOf<Answer>(call, await readResult(connection, call, exchanged));
  } catch (error) {
    if (isFailure(error)) connection.onFailure?.(error);
    throw error;
  } finally {
    exchanged?.done();
  }
}

export function callName(connection: Connection, operation: string): string {
  return `${connection.contract}.${operation.charAt(0).toLowerCase()}${operation.slice(1)}`;
}

/** Sends an operation as JSON (GraphQL over HTTP, section 5.4). */
export async function post<Answer, Variables>(
  connection: Connection,
  { name, text }: GraphqlOperation<Answer, Variables>,
  variables: Variables,
  accept: string,
  options: CallOptions | undefined,
): Promise<Exchanged> {
  const headers = await startHeaders(connection, options);
  headers.set("accept", accept);
  headers.set("content-type", "application/json");
  const url = await supplied(connection.baseUrl);
  const body = connection.json.stringify({ query: text, operationName: name, variables });
  return exchange(connection, { call: callName(connection, name), method: "POST", url, headers, body }, options);
}

/** The data of a result without errors; throws the failure of one with errors. */
export function dataOf<Answer>(call: string, result: GraphqlResult<Answer>): Answer {
  const { data, errors } = result;
  if (errors === undefined && data !== undefined && data !== null) return data;
  const listed = errors ?? [];
  const first = listed[0]?.message ?? "the answer holds no data";
  throw failure(call, first, { status: "errors", errors: listed, data: data ?? null });
}

async function readResult<Answer>(
  connection: Connection,
  call: string,
  { response, explain }: Exchanged,
): Promise<GraphqlResult<Answer>> {
  let text: string;
  try {
    text = await response.text();
  } catch (error) {
    throw explain(error);
  }
  const httpStatus = response.status;
  const result = parsed(connection, text);
  if (typeof result === "object" && result !== null && ("data" in result || "errors" in result))
    return result as GraphqlResult<Answer>;
  if (!response.ok) {
    throw failure(call, `the server answered ${String(httpStatus)}`, {
      status: "unexpected",
      httpStatus,
      body: text,
      headers: response.headers,
    });
  }
  throw failure(call, "the answer is not a GraphQL result", { status: "malformed", httpStatus, body: text });
}

function parsed({ json }: Connection, text: string): unknown {
  try {
    return json.parse(text);
  } catch {
    // Told apart by the caller: what is not JSON has neither data nor errors.
    return undefined;
  }
}
