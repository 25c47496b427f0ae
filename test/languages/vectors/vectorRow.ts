/** Data of JSON. A record with one key that begins with `$` stands for a value that JSON does not have. */
export type Data = string | number | boolean | null | readonly Data[] | { readonly [key: string]: Data };

/** An object of an OpenAPI document. */
export type Described = Readonly<Record<string, unknown>>;

/** What every row says. */
interface Named {
  /** What the row is about, in a few words; no two rows of a kind say the same. */
  readonly why: string;
  /** The section of the standard, or the rule of our documentation. */
  readonly rule: string;
}

/** What a server answers, to the byte. */
export interface RawAnswer {
  /** 200 where nothing is said. */
  readonly status?: number;
  /** `application/json` where nothing is said; null for none. */
  readonly type?: string | null;
  /** Of a value, `{same}` and `{other}` stand for the addresses of two servers, `{user}` for the first with a user. */
  readonly headers?: Readonly<Record<string, string>>;
  /** As a whole, or in pieces that come one after the other. */
  readonly body?: string | readonly string[];
}

/** What arrives at a server. What is not said is not looked at. */
export interface SentRequest {
  readonly method?: string;
  readonly target?: string;
  /** Headers by their names in lower case; null for none. */
  readonly headers?: Readonly<Record<string, string | null>>;
  /** With the boundary replaced. */
  readonly body?: string;
}

/** How a call fails. */
export interface Failed {
  readonly status: number | string;
  readonly httpStatus?: number;
  /** JSON pointer of the first mismatch (RFC 6901). */
  readonly path?: string;
  readonly body?: Data;
}

/** One parameter, a value of it, and what is written: after the question mark, in the path, or as a header. */
export interface ParameterRow extends Named {
  readonly parameter: Described;
  readonly value: Data;
  readonly writes: string;
}

/** A body by its media type, and the bytes that are sent. */
export interface BodyRow extends Named {
  readonly type: string;
  readonly content: Described;
  readonly value: Data;
  readonly writes: string;
}

/** A raw answer, and the value or failure that the app gets. */
export interface AnswerRow extends Named {
  readonly schema: unknown;
  readonly schemas?: Described;
  /** The media type that the contract names, `application/json` where nothing is said. */
  readonly type?: string;
  readonly answer: RawAnswer | string;
  readonly gives?: Data;
  readonly fails?: Failed;
  /** How it fails instead in languages whose types have no place for what is given. */
  readonly strict?: Failed;
}

/** A value on the wire, what the app sees of it, and what is sent when it is given back. */
export interface ValueRow extends Named {
  readonly schema: unknown;
  readonly schemas?: Described;
  readonly wire: string;
  readonly seen: Data;
  /** As it came where nothing is said. */
  readonly back?: string;
}

/** A call: an operation, what it is given, and the exact request. */
export interface CallRow extends Named {
  readonly method?: string;
  readonly path: string;
  readonly operation: Described;
  readonly schemas?: Described;
  readonly security?: Described;
  /** Arguments by the names of their parameters, and `body`. */
  readonly given?: Readonly<Record<string, Data>>;
  /** Credentials of the connection, by scheme. */
  readonly auth?: Readonly<Record<string, Data>>;
  readonly sends: SentRequest;
}

/** What a call declares, what is answered, and how it fails. */
export interface FailureRow extends Named {
  readonly responses: Described;
  readonly schemas?: Described;
  readonly answer: RawAnswer;
  readonly fails: Failed;
}

/** A stream of events in pieces, and the events that the app gets. */
export interface EventRow extends Named {
  readonly chunks: readonly string[];
  readonly events: readonly { readonly event: string; readonly data: string; readonly id?: string }[];
  readonly lastId?: string;
  readonly retryMs?: number;
}

/** Pages of a list, what is asked for them, and the items that the app gets. */
export interface PagingRow extends Named {
  readonly by: "link" | "cursor" | "offset" | "number";
  /** Types of the argument that says which page, and of what an answer says of the next one. */
  readonly cursor?: "string" | "integer";
  readonly said?: "string" | "integer";
  /** The query that the app begins with. */
  readonly from?: string;
  /** A key in the query. */
  readonly credential?: string;
  readonly answers: readonly {
    readonly items?: readonly number[];
    readonly link?: string;
    readonly next?: string | number | null;
    readonly status?: number;
  }[];
  readonly asks: readonly string[];
  readonly items: readonly number[];
  readonly fails?: Failed;
}

/** A call that is led elsewhere, and what arrives in the end. */
export interface RedirectRow extends Named {
  readonly method?: string;
  readonly redirects: readonly (readonly [number, string])[];
  readonly arrives?: { readonly method: string; readonly body: boolean; readonly credentials: readonly string[] };
  readonly fails?: Failed;
}
