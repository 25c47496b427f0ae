/** What a call of an SDK throws, as far as everybody may look at it. */
export interface CallFailure extends Error {
  readonly call: string;
  readonly status: number | string;
  readonly httpStatus?: number;
  readonly body?: unknown;
  readonly errors?: readonly unknown[];
  readonly data?: unknown;
}

/** Whether an error is a failure of a call, by the mark that every SDK puts on it. */
export function isFailureLike(error: unknown): error is CallFailure {
  return error instanceof Error && Reflect.get(error, Symbol.for("rhema.failure")) === true;
}
