import type { Conversion } from "./bodies.js";
import type { Connection, Layer, Outgoing } from "./connection.js";
import { failure, type StatusFailure } from "./failure.js";

const mark: unique symbol = Symbol("a failure to answer with");

/** A failure that a fake connection answers with. */
export interface FakeFailure<Status extends number | string, Body> {
  readonly [mark]: true;
  readonly status: Status;
  readonly body: Body;
}

/** What a call that fails with `Failure` can be told to fail with. */
export type FailureToFake<Failure> =
  | (Failure extends StatusFailure<infer Status, infer Body> ? FakeFailure<Status, Body> : never)
  | FakeFailure<"unreachable", undefined>;

/** Lets a call fail with a declared status and its body. */
export function failing<const Status extends number | string, Body>(
  status: Status,
  body: Body,
): FakeFailure<Status, Body>;
/** Lets a call fail as if there were no network. */
export function failing(status: "unreachable"): FakeFailure<"unreachable", undefined>;
export function failing(status: number | string, body?: unknown): FakeFailure<number | string, unknown> {
  return { [mark]: true, status, body };
}

/** What a call answers: a value, a failure, or a function that makes one of the request. */
export type Fake<Answer, Failure> =
  | Answer
  | FailureToFake<Failure>
  | ((request: FakeRequest) => Answer | FailureToFake<Failure> | Promise<Answer | FailureToFake<Failure>>);

/** One request that a fake connection was sent. */
export interface FakeRequest {
  /** The call's name, without the contract's. */
  readonly call: string;
  readonly method: string;
  readonly url: URL;
  readonly headers: Headers;
  /** Parsed where it is JSON, else as it was sent. */
  readonly body: unknown;
}

/** A connection without a server, and what it was asked. */
export interface FakeConnection<Own extends Connection> {
  readonly connection: Own;
  /** Every request so far, in its order. */
  readonly requests: readonly FakeRequest[];
}

/** How the answer of a call is written. */
export interface FakeAnswer {
  readonly status: number;
  readonly as: "json" | "text" | "bytes" | "none" | "lines" | "sequence" | "events" | "graphql" | "graphqlEvents";
  readonly type?: string;
  readonly conversion?: Pick<Conversion, "encode">;
  readonly stringify?: (value: unknown) => string;
}

/** Answers in the place of a server, and keeps what was asked. */
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
      throw failure(outgoing.call, `the fake connection has no answer for \`${call}\``, { status: "unreachable" });
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
