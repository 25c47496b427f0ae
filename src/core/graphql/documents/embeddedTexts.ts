import type { SourceText } from "../../problem/place.js";
import type { Problem } from "../../problem/problem.js";

/** GraphQL texts inside a source file. */
export interface EmbeddedTexts {
  /**
   * Each literal as a text of its own, with the name of its host file and blanks up to the literal. A place in it is
   * therefore the place in the host file.
   */
  readonly texts: readonly SourceText[];
  readonly problems: readonly Problem[];
}
