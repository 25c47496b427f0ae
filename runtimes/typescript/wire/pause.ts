import { failure } from "./failure.js";

/**
 * Waits, unless the app cancels the call.
 *
 * @throws the failure of the call, with status "aborted"
 */
export async function pause(
  milliseconds: number,
  call: string,
  signal: AbortSignal | undefined,
  cause?: unknown,
): Promise<void> {
  await new Promise<void>((resolve, reject) => {
    const stop = (): void => {
      clearTimeout(timer);
      reject(failure(call, "the app cancelled the call", { status: "aborted" }, cause ?? signal?.reason));
    };
    const timer = setTimeout(() => {
      signal?.removeEventListener("abort", stop);
      resolve();
    }, milliseconds);
    if (signal?.aborted) stop();
    else signal?.addEventListener("abort", stop);
  });
}
