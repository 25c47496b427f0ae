import { Buffer } from "node:buffer";
import type { IncomingMessage } from "node:http";

/** What a request brings along, read once, in the form that is asked for. */
export interface SentBody {
  readonly text: () => Promise<string>;
  readonly form: () => Promise<FormData>;
}

/** Thrown where more is sent than anybody needs. */
export class TooLarge extends Error {}

/**
 * The body of a request. Where the request came over Node's own server, its bytes are taken from there: making a
 * standard body of them costs more than all the rest of a small request.
 *
 * @param most how many bytes may be sent
 * @throws TooLarge (when the body is read) if it has more bytes than allowed
 */
export function sentBody(request: Request, incoming: IncomingMessage | undefined, most: number): SentBody {
  const length = Number(request.headers.get("content-length") ?? 0);
  if (length > most) throw new TooLarge();
  let bytes: Promise<Buffer> | undefined;
  const read = (): Promise<Buffer> => (bytes ??= incoming ? fromStream(incoming, most) : fromRequest(request, most));
  return {
    text: async () => (await read()).toString("utf8"),
    form: async () => {
      const type = request.headers.get("content-type") ?? "";
      // Marked as deprecated for servers that are sent much; the forms of a test server are as small as they come.
      return new Response(new Uint8Array(await read()), { headers: { "content-type": type } }).formData();
    },
  };
}

function fromStream(incoming: IncomingMessage, most: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    let size = 0;
    incoming.on("data", (part: Buffer) => {
      size += part.length;
      if (size > most) reject(new TooLarge());
      else parts.push(part);
    });
    incoming.on("end", () => {
      resolve(parts.length === 1 ? (parts[0] ?? Buffer.alloc(0)) : Buffer.concat(parts));
    });
    incoming.on("error", reject);
    incoming.on("close", () => {
      reject(new Error("The request was disconnected."));
    });
  });
}

async function fromRequest(request: Request, most: number): Promise<Buffer> {
  const bytes = Buffer.from(await request.arrayBuffer());
  if (bytes.length > most) throw new TooLarge();
  return bytes;
}
