import type { Response as DeclaredResponse, RestOperation } from "../../core/contract/model.js";

/** Returns the response that documents a status: its own, that of its range, or the default. */
export function responseFor({ responses }: RestOperation, status: number): DeclaredResponse | undefined {
  const range = `${String(Math.floor(status / 100))}xx`;
  return (
    responses.find((each) => each.status === String(status)) ??
    responses.find((each) => each.status.toLowerCase() === range) ??
    responses.find((each) => each.status === "default")
  );
}
