import type { MappedText } from "./mappedText.js";

/** A file with markup as a module that the compiler reads. */
export interface ComponentModule {
  readonly mapped: MappedText;
  /** The extension by which its text is parsed. */
  readonly ending: ".ts" | ".tsx" | ".js";
  /** Whether errors of the compiler count: it is TypeScript, or a script that is checked like others. */
  readonly isTyped: boolean;
}

/** A file with markup, with the app's compiler for it. */
export interface MarkupFile {
  /** The absolute path. */
  readonly path: string;
  readonly text: string;
}
