/** What a server reports about a failure, as problem details (RFC 9457, section 3). */
export interface ProblemDetails {
  /** A URI that identifies the type of problem; "about:blank" if there is none. */
  readonly type: string;
  readonly title?: string;
  readonly status?: number;
  readonly detail?: string;
  /** A URI of this occurrence. */
  readonly instance?: string;
  /** Further members of this type of problem. */
  readonly [member: string]: unknown;
}

/** The problem details of a failure, declared by the contract or not; undefined if it has none. */
export function problemOf(failure: unknown): ProblemDetails | undefined {
  const { headers, body } = Object(failure) as { headers?: unknown; body?: unknown };
  if (!(headers instanceof Headers)) return undefined;
  if (!/^application\/problem\+json\b/i.test(headers.get("content-type") ?? "")) return undefined;
  const said = typeof body === "string" ? parsed(body) : body;
  if (typeof said !== "object" || said === null || Array.isArray(said)) return undefined;
  const { type, title, status, detail, instance, ...more } = said as Record<string, unknown>;
  // A member of another type than the standard's is ignored (section 3.1).
  return {
    ...more,
    type: typeof type === "string" ? type : "about:blank",
    ...(typeof title === "string" ? { title } : {}),
    ...(typeof status === "number" ? { status } : {}),
    ...(typeof detail === "string" ? { detail } : {}),
    ...(typeof instance === "string" ? { instance } : {}),
  };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
