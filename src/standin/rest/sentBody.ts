import { Buffer } from "node:buffer";
import type { IncomingMessage } from "node:http";

/** The body of a request, read once, in the needed form. */
export interface SentBody {
  readonly text: () => Promise<string>;
  readonly form: () => Promise<FormData>;
}

/** Thrown if a body is larger than allowed. */
export class TooLarge extends Error {}

/**
 * Returns the body of a request. If the request came over Node's own server, its bytes are read from there: creating a
 * standard body costs more than the rest of a small request.
 *
 * @param most the largest number of bytes
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
      // This is deprecated for servers with large bodies, but the forms of a test server are small.
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
