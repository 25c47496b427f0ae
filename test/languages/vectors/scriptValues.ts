import type { Data } from "./vectorRow.js";

/** A value of the app from a row. */
export function valueOf(data: Data): unknown {
  if (Array.isArray(data)) return (data as readonly Data[]).map(valueOf);
  if (typeof data !== "object" || data === null) return data;
  const record = data as Readonly<Record<string, Data>>;
  if ("$instant" in record) return new Date(record["$instant"] as string);
  if ("$integer" in record) return BigInt(record["$integer"] as string);
  if ("$bytes" in record) {
    const { $bytes, type, name } = record as Readonly<Record<string, string>>;
    return name === undefined
      ? new Blob([$bytes ?? ""], { type: type ?? "" })
      : new File([$bytes ?? ""], name, { type: type ?? "" });
  }
  if ("$stream" in record) return new Blob([record["$stream"] as string]).stream();
  return Object.fromEntries(Object.entries(record).map(([key, each]) => [key, valueOf(each)]));
}

/** What an app sees, in the form of rows. */
export async function seen(value: unknown): Promise<unknown> {
  if (value instanceof Date) return { $instant: value.toISOString() };
  if (typeof value === "bigint") return { $integer: String(value) };
  if (value instanceof Blob) return { $bytes: await value.text() };
  if (value instanceof ReadableStream) return { $stream: await new Response(value).text() };
  if (Array.isArray(value)) return Promise.all(value.map(seen));
  if (typeof value !== "object" || value === null) return value ?? null;
  const entries = Object.entries(value).filter(([, each]) => each !== undefined);
  return Object.fromEntries(await Promise.all(entries.map(async ([key, each]) => [key, await seen(each)] as const)));
}

/** How a call of an SDK in a script ended. */
export interface Ended {
  /** Its result, unless it returned items. */
  readonly value?: unknown;
  /** What an app sees of the items; undefined if there were none. */
  readonly items?: readonly unknown[] | undefined;
  readonly error?: unknown;
}

/**
 * Waits for the end of a call, or of its items.
 *
 * @param takes the number of items that the app wants
 */
export async function endOf(call: () => unknown, takes = Infinity): Promise<Ended> {
  const items: unknown[] = [];
  try {
    const value = await call();
    if (!isItems(value)) return { value };
    for await (const item of value) {
      items.push(await seen(item));
      if (items.length >= takes) break;
    }
    return { items };
  } catch (error) {
    return { error, items };
  }
}

/** Whether a call responds item by item. A stream of bytes is one value. */
function isItems(value: unknown): value is AsyncIterable<unknown> {
  return (
    typeof value === "object" && value !== null && Symbol.asyncIterator in value && !(value instanceof ReadableStream)
  );
}
