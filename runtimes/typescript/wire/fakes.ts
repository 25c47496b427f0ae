import type { Conversion } from "./bodies.js";
import type { Connection, Layer, Outgoing } from "./connection.js";
import { failure, type StatusFailure } from "./failure.js";

const mark: unique symbol = Symbol("a failure to answer with");

/** A failure that a fake connection returns. */
export interface FakeFailure<Status extends number | string, Body> {
  readonly [mark]: true;
  readonly status: Status;
  readonly body: Body;
}

/** The failures that a call with `Failure` can be made to return. */
export type FailureToFake<Failure> =
  | (Failure extends StatusFailure<infer Status, infer Body> ? FakeFailure<Status, Body> : never)
  | FakeFailure<"unreachable", undefined>;

/** Makes a call fail with a declared status and its body. */
export function failing<const Status extends number | string, Body>(
  status: Status,
  body: Body,
): FakeFailure<Status, Body>;
/** Makes a call fail as if there were no network. */
export function failing(status: "unreachable"): FakeFailure<"unreachable", undefined>;
export function failing(status: number | string, body?: unknown): FakeFailure<number | string, unknown> {
  return { [mark]: true, status, body };
}

/** The reply to a call: a value, a failure, or a function that makes one from the request. */
export type Fake<Answer, Failure> =
  | Answer
  | FailureToFake<Failure>
  | ((request: FakeRequest) => Answer | FailureToFake<Failure> | Promise<Answer | FailureToFake<Failure>>);

/** One request to a fake connection. */
export interface FakeRequest {
  /** The name of the call, without the name of the contract. */
  readonly call: string;
  readonly method: string;
  readonly url: URL;
  readonly headers: Headers;
  /** Parsed if it is JSON, otherwise as it was sent. */
  readonly body: unknown;
}

/** A connection without a server, with a record of its requests. */
export interface FakeConnection<Own extends Connection> {
  readonly connection: Own;
  /** All requests so far, in order. */
  readonly requests: readonly FakeRequest[];
}

/** How the response of a call is written. */
export interface FakeAnswer {
  readonly status: number;
  readonly as: "json" | "text" | "bytes" | "none" | "lines" | "sequence" | "events" | "graphql" | "graphqlEvents";
  readonly type?: string;
  readonly conversion?: Pick<Conversion, "encode">;
  readonly stringify?: (value: unknown) => string;
}

/** Responds in place of a server and records all requests. A call without a response of its own fails. */
export function fakeServer(
  fakes: Readonly<Record<string, unknown>>,
  answers: Readonly<Record<string, FakeAnswer>>,
): { readonly layer: Layer; readonly requests: readonly FakeRequest[] } {
  const requests: FakeRequest[] = [];
  const layer: Layer = async (outgoing) => {
    const call = outgoing.call.slice(outgoing.call.indexOf(".") + 1);
    const { method, headers } = outgoing;
    const request: FakeRequest = { call, method, url: new URL(outgoing.url), headers, body: bodyOf(outgoing) };
    requests.push(request);
    const fake = Object.prototype.hasOwnProperty.call(fakes, call) ? fakes[call] : undefined;
    const given: unknown = typeof fake === "function" ? await (fake as (asked: FakeRequest) => unknown)(request) : fake;
    const answer = answers[call];
    if (!Object.prototype.hasOwnProperty.call(fakes, call) || !answer) {
      throw failure(outgoing.call, `the fake connection has no response for \`${call}\``, { status: "unreachable" });
    }
    return isFailing(given) ? failed(outgoing, given) : written(given, answer);
  };
  return { layer, requests };
}

function bodyOf({ body, headers }: Outgoing): unknown {
  if (typeof body !== "string" || headers.get("content-type")?.includes("json") !== true) return body ?? undefined;
  return JSON.parse(body) as unknown;
}

function isFailing(value: unknown): value is FakeFailure<number | string, unknown> {
  return typeof value === "object" && value !== null && mark in value;
}

function failed({ call }: Outgoing, { status, body }: FakeFailure<number | string, unknown>): Response {
  if (status === "unreachable") throw failure(call, "the fake connection has no network", { status });
  const number = typeof status === "number" ? status : status === "default" ? 500 : Number(`${status.charAt(0)}00`);
  const isText = typeof body === "string";
  return new Response(isText ? body : body === undefined ? null : JSON.stringify(body), {
    status: number,
    headers: { "content-type": isText ? "text/plain" : "application/json" },
  });
}

function written(given: unknown, { status, as, type, conversion, stringify = JSON.stringify }: FakeAnswer): Response {
  const encode = conversion?.encode ?? ((value: unknown) => value);
  const one = (value: unknown): string =>
    typeof value === "string" && as === "events" ? value : stringify(encode(value));
  const all = (before: string, after: string): string =>
    (given as readonly unknown[]).map((item) => before + one(item) + after).join("");
  const body = (): Blob | string | null => {
    if (given instanceof Blob) return given;
    switch (as) {
      case "none":
        return null;
      case "text":
      case "bytes":
        return String(encode(given));
      case "json":
        return one(given);
      case "graphql":
        return `{"data":${one(given)}}`;
      case "graphqlEvents":
        return `${(given as readonly unknown[]).map((item) => `event: next\ndata: {"data":${one(item)}}\n\n`).join("")}event: complete\n\n`;
      case "lines":
        return all("", "\n");
      case "sequence":
        return all("\u001e", "\n");
      case "events":
        return all("data: ", "\n\n");
    }
  };
  return new Response(body(), { status, headers: { "content-type": type ?? "application/json" } });
}
