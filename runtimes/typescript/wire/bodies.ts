/** A body ready to send; without a type, the platform sets it (multipart needs its own boundary). */
export interface Body {
  readonly data: NonNullable<RequestInit["body"]>;
  readonly type?: string;
}

/** Turns a value of the wire into the app's, and back. A value that is not what it should be passes as it is. */
export interface Conversion {
  readonly decode: (value: unknown) => unknown;
  readonly encode: (value: unknown) => unknown;
}

/** A JSON body; undefined means no body, null is the JSON null. */
export function jsonBody(value: unknown, type = "application/json"): Body | undefined {
  return value === undefined ? undefined : { data: JSON.stringify(value), type };
}

/** A body of text. */
export function textBody(value: string | undefined, type: string): Body | undefined {
  return value === undefined ? undefined : { data: value, type };
}

/** A body of bytes. */
export function bytesBody(value: Blob | undefined, type: string): Body | undefined {
  return value === undefined ? undefined : { data: value, type };
}
