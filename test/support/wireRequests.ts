import { expect } from "vitest";
import { isFailure } from "../../runtimes/typescript/wire/failure.js";
import type { RestRequest } from "../../runtimes/typescript/wire/send.js";

/** A request like those of generated code, to be varied. */
export function request(more: Partial<RestRequest<unknown>> = {}): RestRequest<unknown> {
  return { call: "api.getBerth", method: "GET", path: "/berths/N-07", answers: { 200: "json" }, ...more };
}

/** Returns the failure of a call, which must be one of the SDK's own. */
export async function failureOf(promise: Promise<unknown>): Promise<Record<string, unknown>> {
  try {
    await promise;
  } catch (error) {
    expect(isFailure(error)).toBe(true);
    return error as Record<string, unknown>;
  }
  throw new Error("It did not fail.");
}
