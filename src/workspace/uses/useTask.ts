import type { SdkPart } from "../languages/languageTools.js";
import type { Environment } from "../project/trace.js";

/** The task of a thread that searches for uses. It is plain data, because it is sent from one thread to another. */
export interface UseTask {
  readonly root: string;
  readonly configName: string;
  readonly environment: Environment;
  /** The language of the SDKs. */
  readonly language: string;
  readonly parts: readonly SdkPart[];
}
