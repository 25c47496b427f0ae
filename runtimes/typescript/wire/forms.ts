import type { Body } from "./bodies.js";
import { form, text } from "./parameters.js";

/** A body as `application/x-www-form-urlencoded`, spaces as `+`. */
export function urlencoded(value: unknown): Body | undefined {
  if (value === undefined) return undefined;
  const pairs = entriesOf(value).map(([name, each]) => form(name, each));
  const data = pairs.filter((pair) => pair !== "").join("&");
  return { data: data.replaceAll("%20", "+"), type: "application/x-www-form-urlencoded" };
}

/** A body as `multipart/form-data` (RFC 7578): files as they are, records as JSON parts, lists as repeated parts. */
export function multipart(value: unknown): Body | undefined {
  if (value === undefined) return undefined;
  const data = new FormData();
  for (const [name, each] of entriesOf(value)) {
    for (const part of Array.isArray(each) ? (each as unknown[]) : [each]) append(data, name, part);
  }
  return { data };
}

function append(data: FormData, name: string, part: unknown): void {
  if (part === undefined) return;
  if (part instanceof Blob) data.append(name, part);
  else if (typeof part === "object") data.append(name, new Blob([JSON.stringify(part)], { type: "application/json" }));
  else data.append(name, text(part));
}

/** Only a record can be a form; a contract that says otherwise gets an empty one. */
function entriesOf(value: unknown): [string, unknown][] {
  return typeof value === "object" && value !== null ? Object.entries(value) : [];
}
