import type { Misfit } from "./rest/checkRequest.js";

/** A response of the stand-in server, with the facts about it. */
export interface PlayedAnswer {
  readonly response: Response;
  /** The operation's label; undefined if the contract has none for the request. */
  readonly operation?: string | undefined;
  /** The errors of the request. */
  readonly misfits: readonly Misfit[];
  /** The errors of the stand-in server's own response, which are internal errors. */
  readonly faults: readonly string[];
  /** The bodies as they were received and sent, for the page. */
  readonly received?: string;
  readonly sent: string;
}
