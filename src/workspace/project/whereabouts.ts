import type { Environment, Trace } from "./trace.js";
import type { Secrets } from "../../core/text/secrets.js";
import type { Session } from "./session.js";

/** The place where a command runs. Nothing below reads it from the process, so that several can run in one process. */
export interface Whereabouts {
  /** The absolute path of the working folder. */
  readonly folder: string;
  readonly environment: Environment;
  readonly trace: Trace;
  /** The credentials of the run, so that none is printed. */
  readonly secrets: Secrets;
  readonly session: Session;
}
