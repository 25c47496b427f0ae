import type { Secrets } from "../core/text/secrets.js";
import type { Session } from "./session.js";

/** Variables of the environment by name, as Node gives them. */
export type Environment = Readonly<Record<string, string | undefined>>;

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

/** Takes note of a step that is done, for whoever looks for where time goes and what is read; never of a secret. */
export type Trace = (step: () => string) => void;

/** Takes no note. */
export const untraced: Trace = () => undefined;
