import type { Body } from "./bodies.js";
import { form, json, text } from "./parameters.js";
import { deepObject, piped, spaced, tabbed } from "./rarerParameters.js";

/** How one field of a form is written, where that is not as usual. */
export interface FieldOptions {
  /** The media type of a part, or "application/json" for a field that is JSON. */
  readonly type?: string;
  readonly style?: "spaceDelimited" | "pipeDelimited" | "tabDelimited" | "deepObject";
  readonly explode?: boolean;
}

type Options = Readonly<Record<string, FieldOptions>>;

/** A body as `application/x-www-form-urlencoded`, spaces as `+`; a record inside is JSON unless a style says else. */
export function urlencoded(value: unknown, options: Options = {}): Body | undefined {
  if (value === undefined) return undefined;
  const pairs = entriesOf(value).map(([name, each]) => pair(name, each, options[name] ?? {}));
  const data = pairs.filter((each) => each !== "").join("&");
  return { data: data.replace(/%20/g, "+"), type: "application/x-www-form-urlencoded" };
}

function pair(name: string, value: unknown, { type, style, explode = true }: FieldOptions): string {
  if (value === undefined) return "";
  if (type !== undefined && isJson(type)) return form(name, json(value));
  if (style === "deepObject") return deepObject(name, value);
  if (!explode && style === "spaceDelimited") return spaced(name, value);
  if (!explode && style === "pipeDelimited") return piped(name, value);
  if (!explode && style === "tabDelimited") return tabbed(name, value);
  return form(name, value, explode);
}

/**
 * A body as `multipart/form-data` (RFC 7578): files as they are, records as JSON parts, lists as repeated parts. A part
 * that is a stream is collected first, because forms need to know where their parts end.
 */
export function multipart(value: unknown, options: Options = {}): Body | undefined {
  if (value === undefined) return undefined;
  const parts = entriesOf(value).flatMap(([name, each]): Part[] => {
    const { type } = options[name] ?? {};
    const listed = Array.isArray(each) && (type === undefined || !isJson(type)) ? (each as unknown[]) : [each];
    return listed.map((part) => ({ name, part, type }));
  });
  return { data: parts.some(({ part }) => isStream(part)) ? collected(parts) : formOf(parts) };
}

interface Part {
  readonly name: string;
  readonly part: unknown;
  readonly type: string | undefined;
}

/** Not every platform has streams to ask for. */
function isStream(part: unknown): part is ReadableStream<Uint8Array> {
  return typeof ReadableStream === "function" && part instanceof ReadableStream;
}

function formOf(parts: readonly Part[]): FormData {
  const data = new FormData();
  for (const { name, part, type } of parts) append(data, name, part, type);
  return data;
}

async function collected(parts: readonly Part[]): Promise<FormData> {
  const whole = parts.map(async ({ name, part, type }): Promise<Part> => {
    return { name, part: isStream(part) ? await new Response(part).blob() : part, type };
  });
  return formOf(await Promise.all(whole));
}

function append(data: FormData, name: string, part: unknown, type: string | undefined): void {
  if (part === undefined) return;
  if (part instanceof Blob)
    data.append(name, type === undefined || part.type !== "" ? part : new Blob([part], { type }));
  else if (typeof part === "object" || (type !== undefined && isJson(type)))
    data.append(name, new Blob([JSON.stringify(part)], { type: type ?? "application/json" }));
  else if (type === undefined || type === "text/plain") data.append(name, text(part));
  else data.append(name, new Blob([text(part)], { type }));
}

function isJson(type: string): boolean {
  return /^application\/([\w.-]+\+)?json\b/.test(type);
}

/** Only a record can be a form; a contract that says otherwise gets an empty one. */
function entriesOf(value: unknown): [string, unknown][] {
  return typeof value === "object" && value !== null ? Object.entries(value) : [];
}
