import type { Body } from "./bodies.js";
import { form, text } from "./parameters.js";

/** A body as `application/x-www-form-urlencoded`, spaces as `+`. */
export function urlencoded(value: object | undefined): Body | undefined {
  if (value === undefined) return undefined;
  const pairs = Object.entries(value).map(([name, each]) => form(name, each));
  const data = pairs.filter((pair) => pair !== "").join("&");
  return { data: data.replaceAll("%20", "+"), type: "application/x-www-form-urlencoded" };
}

/** A body as `multipart/form-data` (RFC 7578): files as they are, records as JSON parts, lists as repeated parts. */
export function multipart(value: object | undefined): Body | undefined {
  if (value === undefined) return undefined;
  const data = new FormData();
  for (const [name, each] of Object.entries(value)) {
    for (const part of Array.isArray(each) ? (each as unknown[]) : [each as unknown]) append(data, name, part);
  }
  return { data };
}

function append(data: FormData, name: string, part: unknown): void {
  if (part === undefined) return;
  if (part instanceof Blob) data.append(name, part);
  else if (typeof part === "object") data.append(name, new Blob([JSON.stringify(part)], { type: "application/json" }));
  else data.append(name, text(part));
}
