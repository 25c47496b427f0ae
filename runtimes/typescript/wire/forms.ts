import type { Body } from "./bodies.js";
import { form, json, text } from "./parameters.js";
import { deepObject, piped, spaced, tabbed } from "./rarerParameters.js";

/** How one field of a form is written, if not in the default way. */
export interface FieldOptions {
  /** The media type of a part, or "application/json" for a field that contains JSON. */
  readonly type?: string;
  readonly style?: "spaceDelimited" | "pipeDelimited" | "tabDelimited" | "deepObject";
  readonly explode?: boolean;
}

type Options = Readonly<Record<string, FieldOptions>>;

/**
 * A body as `application/x-www-form-urlencoded`, with spaces as `+`. An object inside is JSON unless a style says
 * otherwise.
 */
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
 * A body as `multipart/form-data` (RFC 7578): files stay files, objects become JSON parts, lists become repeated parts.
 * A part that is a stream is collected first, because the boundary must not occur in any part.
 */
export function multipart(value: unknown, options: Options = {}): Body | undefined {
  if (value === undefined) return undefined;
  const parts = entriesOf(value).flatMap(([name, each]): Part[] => {
    const { type } = options[name] ?? {};
    const listed = Array.isArray(each) && (type === undefined || !isJson(type)) ? (each as unknown[]) : [each];
    return listed.filter((part) => part !== undefined).map((part) => ({ name, part: whole(part), type }));
  });
  // The platform's form treats every part with a media type as a file. If the body has such a part that is not a file,
  // the form is written here.
  if (!parts.some(isTyped))
    return { data: parts.some(({ part }) => isStream(part)) ? collected(parts) : formOf(parts) };
  const boundary = `form-${unguessable()}`;
  const data = parts.some(({ part }) => isStream(part))
    ? withoutStreams(parts).then((all) => written(all, boundary))
    : written(parts, boundary);
  return { data, type: `multipart/form-data; boundary=${boundary}` };
}

interface Part {
  readonly name: string;
  readonly part: unknown;
  readonly type: string | undefined;
}

/** All types for bytes are files. */
function whole(part: unknown): unknown {
  return part instanceof ArrayBuffer || ArrayBuffer.isView(part) ? new Blob([part as ArrayBuffer]) : part;
}

/** Not every platform has streams. */
function isStream(part: unknown): part is ReadableStream<Uint8Array> {
  return typeof ReadableStream === "function" && part instanceof ReadableStream;
}

/** Whether a part has a media type of its own and is not a file. */
function isTyped({ part, type }: Part): boolean {
  return (
    !(part instanceof Blob) && !isStream(part) && (typeof part === "object" || (type ?? "text/plain") !== "text/plain")
  );
}

/** A random boundary, so that no content can end its part early. */
function unguessable(): string {
  const { crypto } = globalThis as { readonly crypto?: { readonly randomUUID?: () => string } };
  return crypto?.randomUUID?.() ?? `${String(Math.random()).slice(2)}${String(Math.random()).slice(2)}`;
}

/** A form as text and files (RFC 7578, section 4). */
function written(parts: readonly Part[], boundary: string): Blob {
  const pieces = parts.flatMap((each): (string | Blob)[] => {
    const { name, part, type } = each;
    const start = `--${boundary}\r\nContent-Disposition: form-data; name="${quotedPart(name)}"`;
    if (part instanceof Blob) {
      const fileName = (part as Partial<File>).name ?? "blob";
      const fileType = part.type === "" ? (type ?? "application/octet-stream") : part.type;
      return [`${start}; filename="${quotedPart(fileName)}"\r\nContent-Type: ${fileType}\r\n\r\n`, part, "\r\n"];
    }
    const isData = typeof part === "object" || (type !== undefined && isJson(type));
    const partType = isTyped(each) ? `\r\nContent-Type: ${type ?? "application/json"}` : "";
    return [`${start}${partType}\r\n\r\n${isData ? JSON.stringify(part) : lines(text(part))}\r\n`];
  });
  return new Blob([...pieces, `--${boundary}--\r\n`]);
}

/** A name between quotation marks (HTML, section 4.10.21.8). */
function quotedPart(name: string): string {
  return lines(name).replace(/\r\n/g, "%0D%0A").replace(/"/g, "%22");
}

/** Line endings in the way that forms require. */
function lines(value: string): string {
  return value.replace(/\r\n|\r|\n/g, "\r\n");
}

function formOf(parts: readonly Part[]): FormData {
  const data = new FormData();
  for (const { name, part, type } of parts) append(data, name, part, type);
  return data;
}

async function collected(parts: readonly Part[]): Promise<FormData> {
  return formOf(await withoutStreams(parts));
}

function withoutStreams(parts: readonly Part[]): Promise<Part[]> {
  const all = parts.map(async ({ name, part, type }): Promise<Part> => {
    return { name, part: isStream(part) ? await new Response(part).blob() : part, type };
  });
  return Promise.all(all);
}

/** Adds a part that is a file, or text without a media type of its own. */
function append(data: FormData, name: string, part: unknown, type: string | undefined): void {
  if (part instanceof Blob)
    data.append(name, type === undefined || part.type !== "" ? part : new Blob([part], { type }));
  else data.append(name, text(part));
}

function isJson(type: string): boolean {
  return /^application\/([\w.-]+\+)?json\b/.test(type);
}

/** Only an object can be a form. If the contract has another type, the form is empty. */
function entriesOf(value: unknown): [string, unknown][] {
  return typeof value === "object" && value !== null ? Object.entries(value) : [];
}
