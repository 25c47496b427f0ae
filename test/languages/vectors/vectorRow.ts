/** JSON data. An object with one key that begins with `$` stands for a value that JSON does not have. */
export type Data = string | number | boolean | null | readonly Data[] | { readonly [key: string]: Data };

/** An object of an OpenAPI document. */
export type Described = Readonly<Record<string, unknown>>;

/** The parts of every row. */
interface Named {
  /** The subject of the row in a few words, different from those of all rows of its kind. */
  readonly why: string;
  /** The section of the standard, or the rule of our documentation. */
  readonly rule: string;
}

/** The response of a server, to the byte. */
export interface RawAnswer {
  /** Default: 200. */
  readonly status?: number;
  /** Default: `application/json`; null for none. */
  readonly type?: string | null;
  /** In a value, `{same}` and `{other}` stand for the addresses of two servers, `{user}` for the first with a user. */
  readonly headers?: Readonly<Record<string, string>>;
  /** As a whole, or in pieces, in order. */
  readonly body?: string | readonly string[];
}

/** The request at a server. Parts that are left out are not compared. */
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

/** One parameter, its value, and the result: the text after the question mark, in the path, or as a header. */
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

/** A raw response, and the value or failure in the app. */
export interface AnswerRow extends Named {
  readonly schema: unknown;
  readonly schemas?: Described;
  /** The contract's media type. Default: `application/json`. */
  readonly type?: string;
  readonly answer: RawAnswer | string;
  readonly gives?: Data;
  readonly fails?: Failed;
  /** The failure in languages whose types have no place for the value. */
  readonly strict?: Failed;
}

/** A value in JSON, the value in the app, and the JSON when it is sent back. */
export interface ValueRow extends Named {
  readonly schema: unknown;
  readonly schemas?: Described;
  readonly wire: string;
  readonly seen: Data;
  /** Default: as it was received. */
  readonly back?: string;
}

/** A call: an operation, its arguments, and the exact request. */
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

/** The declared responses of a call, the response, and the failure. */
export interface FailureRow extends Named {
  readonly responses: Described;
  readonly schemas?: Described;
  readonly answer: RawAnswer;
  readonly fails: Failed;
}

/** A stream of events in pieces, and the events in the app. */
export interface EventRow extends Named {
  readonly chunks: readonly string[];
  readonly events: readonly { readonly event: string; readonly data: string; readonly id?: string }[];
  readonly lastId?: string;
  readonly retryMs?: number;
}

/** Pages of a list, the requests for them, and the items in the app. */
export interface PagingRow extends Named {
  readonly by: "link" | "cursor" | "offset" | "number";
  /** The types of the argument that selects the page, and of the next page's position in a response. */
  readonly cursor?: "string" | "integer";
  readonly said?: "string" | "integer";
  /** The first query of the app. */
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

/** A call with a redirect, and the request that arrives in the end. */
export interface RedirectRow extends Named {
  readonly method?: string;
  readonly redirects: readonly (readonly [number, string])[];
  readonly arrives?: { readonly method: string; readonly body: boolean; readonly credentials: readonly string[] };
  readonly fails?: Failed;
}
