/** A declared failure: the server answered with this status and a body of this shape. */
export interface StatusFailure<Status extends number | string, Body> extends Error {
  readonly call: string;
  /** The declared status, for example 404, or a declared range such as "4XX". */
  readonly status: Status;
  /** The status that was actually sent. */
  readonly httpStatus: number;
  /** As the contract says; where the server sends no JSON instead, such as a page of a proxy, that text, with a `cause`. */
  readonly body: Body;
  readonly headers: Headers;
}

/** What can happen to any call. */
export type OtherFailure = UnexpectedFailure | MalformedFailure | UnreachableFailure;

/** A status the contract does not declare. */
export interface UnexpectedFailure extends Error {
  readonly call: string;
  readonly status: "unexpected";
  readonly httpStatus: number;
  /** The body as text. */
  readonly body: string;
  readonly headers: Headers;
}

/** An answer whose body could not be read as what the contract says; `cause` tells why. */
export interface MalformedFailure extends Error {
  readonly call: string;
  readonly status: "malformed";
  readonly httpStatus: number;
  /** The body as text, as far as it came. */
  readonly body: string;
}

/** No answer: the server cannot be reached, the time is over, or the app gave up. `cause` tells more. */
export interface UnreachableFailure extends Error {
  readonly call: string;
  readonly status: "unreachable" | "timed-out" | "aborted";
}

/** One entry of a GraphQL answer's `errors` (GraphQL specification, section 7.1.2). */
export interface GraphqlError {
  readonly message: string;
  readonly path?: readonly (string | number)[];
  readonly locations?: readonly { readonly line: number; readonly column: number }[];
  readonly extensions?: Readonly<Record<string, unknown>>;
}

/** A GraphQL answer with errors. What could be answered all the same is in `data`. */
export interface GraphqlErrorsFailure<Answer> extends Error {
  readonly call: string;
  readonly status: "errors";
  readonly errors: readonly GraphqlError[];
  readonly data: Answer | null;
}

/** Two SDKs in one app are two copies of this file, so failures are known by a mark, not by their class. */
const mark = Symbol.for("rhema.failure");

/** Makes the error of a failed call. */
export function failure(
  call: string,
  message: string,
  details: Readonly<Record<string, unknown>>,
  cause?: unknown,
): Error {
  const error = new Error(`${call}: ${message}`);
  // Apps that are compiled for older platforms do not know the option of the constructor.
  if (cause !== undefined) Object.defineProperty(error, "cause", { value: cause, configurable: true, writable: true });
  error.name = "CallFailure";
  return Object.assign(error, details, { call, [mark]: true });
}

/** Whether an error is a failure of the call with this name ("contract.call"); of any call when it is left out. */
export function isFailure(error: unknown, call?: string): error is Error & { readonly call: string } {
  return (
    error instanceof Object &&
    Reflect.get(error, mark) === true &&
    (call === undefined || Reflect.get(error, "call") === call)
  );
}

/** Stands in an address for what no address can carry; a request is refused because of it. */
export const unsendable = "\0";
