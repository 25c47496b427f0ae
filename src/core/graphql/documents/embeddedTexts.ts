import type { SourceText } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";

/** GraphQL that was found inside a source file. */
export interface EmbeddedTexts {
  /**
   * Each literal as a text of its own that is named after its host and blank up to the literal, so that a place in it
   * is the place in the host file.
   */
  readonly texts: readonly SourceText[];
  readonly problems: readonly Problem[];
}
