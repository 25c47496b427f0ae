/** A body to send. Without a type, the platform sets the media type (multipart needs its own boundary). */
export interface Body {
  readonly data?: NonNullable<RequestInit["body"]> | Promise<NonNullable<RequestInit["body"]>>;
  /** Sent as JSON, with the connection's JSON functions. */
  readonly json?: unknown;
  readonly type?: string;
  /** A body that can be sent only once. */
  readonly duplex?: "half";
}

/** Converts a value between its form in JSON and the form that the app sees. A value of another type stays as it is. */
export interface Conversion {
  readonly decode: (value: unknown) => unknown;
  readonly encode: (value: unknown) => unknown;
}

/** A JSON body. Undefined means no body, null is the JSON value null. */
export function jsonBody(value: unknown, type = "application/json"): Body | undefined {
  return value === undefined ? undefined : { json: value, type };
}

/** A text body. */
export function textBody(value: string | undefined, type: string): Body | undefined {
  return value === undefined ? undefined : { data: value, type };
}

/** A body of bytes. A stream is sent once, without collecting it first. */
export function bytesBody(
  value: Blob | Uint8Array | ArrayBuffer | ReadableStream<Uint8Array> | undefined,
  type: string,
): Body | undefined {
  if (value === undefined) return undefined;
  // Newer type declarations of the platform exclude shared memory, which no app uses here.
  const data = value as NonNullable<RequestInit["body"]>;
  const isWhole = value instanceof Blob || value instanceof ArrayBuffer || ArrayBuffer.isView(value);
  return isWhole ? { data, type } : { data, type, duplex: "half" };
}
