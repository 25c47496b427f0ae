import type { SdkPart } from "../languages/languageTools.js";
import type { Environment } from "../project/trace.js";

/** What a thread of its own is to look for; plain data, because it goes from one thread to another. */
export interface UseTask {
  readonly root: string;
  readonly configName: string;
  readonly environment: Environment;
  /** The language of the SDKs. */
  readonly language: string;
  readonly parts: readonly SdkPart[];
}
