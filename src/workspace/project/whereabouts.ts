import type { Environment, Trace } from "./trace.js";
import type { Secrets } from "../../core/text/secrets.js";
import type { Session } from "./session.js";

/** Where a command runs. Nothing below asks the process for it, so that several can run in one process. */
export interface Whereabouts {
  /** Absolute path of the working folder. */
  readonly folder: string;
  readonly environment: Environment;
  readonly trace: Trace;
  /** Credentials that the run meets, so that none is printed. */
  readonly secrets: Secrets;
  readonly session: Session;
}
