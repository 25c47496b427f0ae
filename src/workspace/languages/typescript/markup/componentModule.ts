import type { MappedText } from "./mappedText.js";

/** A file with markup as a module that the compiler reads. */
export interface ComponentModule {
  readonly mapped: MappedText;
  /** The ending that its text is read by. */
  readonly ending: ".ts" | ".tsx" | ".js";
  /** What the compiler refuses counts: it is TypeScript, or a script that is checked as others are. */
  readonly isTyped: boolean;
}

/** A file with markup, and the compiler that the app has for it. */
export interface MarkupFile {
  /** Absolute path. */
  readonly path: string;
  readonly text: string;
}
