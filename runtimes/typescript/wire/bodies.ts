/** A body to send; without a type, the platform sets it (multipart needs its own boundary). */
export interface Body {
  readonly data?: NonNullable<RequestInit["body"]> | Promise<NonNullable<RequestInit["body"]>>;
  /** Sent as JSON, as the connection writes it. */
  readonly json?: unknown;
  readonly type?: string;
  /** A body that can be sent once only. */
  readonly duplex?: "half";
}

/** Turns a value of the wire into the app's, and back. A value that is not what it should be passes as it is. */
export interface Conversion {
  readonly decode: (value: unknown) => unknown;
  readonly encode: (value: unknown) => unknown;
}

/** A JSON body; undefined means no body, null is the JSON null. */
export function jsonBody(value: unknown, type = "application/json"): Body | undefined {
  return value === undefined ? undefined : { json: value, type };
}

/** A body of text. */
export function textBody(value: string | undefined, type: string): Body | undefined {
  return value === undefined ? undefined : { data: value, type };
}

/** A body of bytes; a stream is sent as it comes, once. */
export function bytesBody(
  value: Blob | Uint8Array | ArrayBuffer | ReadableStream<Uint8Array> | undefined,
  type: string,
): Body | undefined {
  if (value === undefined) return undefined;
  // Newer declarations of the platform tell memory that is shared apart, which no app has here.
  const data = value as NonNullable<RequestInit["body"]>;
  const isWhole = value instanceof Blob || value instanceof ArrayBuffer || ArrayBuffer.isView(value);
  return isWhole ? { data, type } : { data, type, duplex: "half" };
}
