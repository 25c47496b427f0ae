/** A declared failure: the server responded with this status and a body of this type. */
export interface StatusFailure<Status extends number | string, Body> extends Error {
  readonly call: string;
  /** The declared status, for example 404, or a declared range such as "4XX". */
  readonly status: Status;
  /** The status of the response. */
  readonly httpStatus: number;
  /**
   * The declared body. If the server sends something other than JSON, such as the page of a proxy, this is its text,
   * and `cause` is set.
   */
  readonly body: Body;
  readonly headers: Headers;
}

/** Failures that every call can have. */
export type OtherFailure = UnexpectedFailure | MalformedFailure | UnreachableFailure;

/** A status that the contract does not declare. */
export interface UnexpectedFailure extends Error {
  readonly call: string;
  readonly status: "unexpected";
  readonly httpStatus: number;
  /** The body as text. */
  readonly body: string;
  readonly headers: Headers;
}

/** A response whose body does not match the contract; `cause` gives the reason. */
export interface MalformedFailure extends Error {
  readonly call: string;
  readonly status: "malformed";
  readonly httpStatus: number;
  /** The body as text, as far as it was received. */
  readonly body: string;
}

/**
 * No response: the server cannot be reached, the time limit is reached, or the app cancelled the call. `cause` gives
 * the reason.
 */
export interface UnreachableFailure extends Error {
  readonly call: string;
  readonly status: "unreachable" | "timed-out" | "aborted";
}

/** One entry of `errors` in a GraphQL response (GraphQL specification, section 7.1.2). */
export interface GraphqlError {
  readonly message: string;
  readonly path?: readonly (string | number)[];
  readonly locations?: readonly { readonly line: number; readonly column: number }[];
  readonly extensions?: Readonly<Record<string, unknown>>;
}

/** A GraphQL response with errors. `data` includes partial data. */
export interface GraphqlErrorsFailure<Answer> extends Error {
  readonly call: string;
  readonly status: "errors";
  readonly errors: readonly GraphqlError[];
  readonly data: Answer | null;
}

/** An app with two SDKs has two copies of this file, so failures have a mark and not a common class. */
const mark = Symbol.for("rhema.failure");

/** Creates the error of a failed call. */
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

/**
 * Whether an error is a failure of the call with this name ("contract.call"), or of any call if the name is left out.
 */
export function isFailure(error: unknown, call?: string): error is Error & { readonly call: string } {
  return (
    error instanceof Object &&
    Reflect.get(error, mark) === true &&
    (call === undefined || Reflect.get(error, "call") === call)
  );
}

/** Marks a character that cannot be part of an address. A request with this mark is refused. */
export const unsendable = "\0";
