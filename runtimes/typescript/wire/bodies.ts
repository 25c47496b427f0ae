/** A body ready to send; without a type, the platform sets it (multipart needs its own boundary). */
export interface Body {
  readonly data: NonNullable<RequestInit["body"]>;
  readonly type?: string;
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
