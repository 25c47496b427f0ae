/** A request and its response, as seen between app and backend. */
export interface SeenExchange {
  readonly method: string;
  readonly url: URL;
  readonly requestHeader: (name: string) => string | undefined;
  /** Undefined if it was not recorded; "" if there is none. */
  readonly requestBody: string | undefined;
  readonly status: number;
  readonly answerHeader: (name: string) => string | undefined;
  /** Undefined if it was not recorded, or is not text. */
  readonly answerBody: string | undefined;
  /** Whether the app cancelled it before it had the whole response. */
  readonly isAborted?: boolean;
}

/** The result of checking one request and its response. */
export interface Judgement {
  /** "GET /berths", "query Fleet"; undefined if the contract has no such operation. */
  readonly operation: string | undefined;
  /** The mismatches with the contract, each as a sentence that begins with the place: "response 200 /items/0 …". */
  readonly disagreements: readonly string[];
  /** The parts that could not be checked, with the reason. */
  readonly unjudged: readonly string[];
}
