import type { CallFailure } from "../../try/performing.js";

/** Returns whether an error is a failure of a call, by the mark from every SDK. */
export function isFailureLike(error: unknown): error is CallFailure {
  return error instanceof Error && Reflect.get(error, Symbol.for("rhema.failure")) === true;
}
