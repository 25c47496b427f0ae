/** A request and its answer, as somebody in between saw them. */
export interface SeenExchange {
  readonly method: string;
  readonly url: URL;
  readonly requestHeader: (name: string) => string | undefined;
  /** Undefined when it was not recorded; "" when there is none. */
  readonly requestBody: string | undefined;
  readonly status: number;
  readonly answerHeader: (name: string) => string | undefined;
  /** Undefined when it was not recorded, or is no text. */
  readonly answerBody: string | undefined;
  /** The app gave it up before it had the whole answer. */
  readonly isAborted?: boolean;
}

/** What there is to say about one exchange. */
export interface Judgement {
  /** "GET /berths", "query Fleet"; undefined where the contract has no such operation. */
  readonly operation: string | undefined;
  /** What disagrees with the contract, each as a sentence that begins with where: "response 200 /items/0 …". */
  readonly disagreements: readonly string[];
  /** Parts that could not be judged, and why. */
  readonly unjudged: readonly string[];
}
