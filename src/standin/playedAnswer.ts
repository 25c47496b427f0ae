import type { Misfit } from "./rest/checkRequest.js";

/** An answer of the stand-in, and what there is to say about it. */
export interface PlayedAnswer {
  readonly response: Response;
  /** The operation's label; undefined where the contract has none for the request. */
  readonly operation?: string | undefined;
  /** What of the request does not fit the contract. */
  readonly misfits: readonly Misfit[];
  /** What of the stand-in's own answer does not fit, which is a defect of it. */
  readonly faults: readonly string[];
  /** The bodies as they came and went, for whoever watches. */
  readonly received?: string;
  readonly sent: string;
}
