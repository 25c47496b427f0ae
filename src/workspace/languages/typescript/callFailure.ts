import type { CallFailure } from "../../try/performing.js";

/** Whether an error is a failure of a call, by the mark that every SDK puts on it. */
export function isFailureLike(error: unknown): error is CallFailure {
  return error instanceof Error && Reflect.get(error, Symbol.for("rhema.failure")) === true;
}
