import { lineOf, type Position } from "./textLines.js";

/** So that a frame with its number and indent holds in 80 columns. */
const maxFrameWidth = 68;

/**
 * The line a position is on with one line before it, numbered, and a caret line below. Long lines are cut to a window
 * around the column; control characters are shown as a middle dot, so that a hostile text cannot steer a terminal.
 */
export function codeFrame(text: string, position: Position): string[] {
  const first = Math.max(1, position.line - 1);
  const width = String(position.line).length;
  const windowStart = Math.max(0, position.column - 1 - maxFrameWidth + 20);
  const rows: string[] = [];
  for (let line = first; line <= position.line; line++) {
    const shown = visible(lineOf(text, line).slice(windowStart, windowStart + maxFrameWidth));
    rows.push(`${String(line).padStart(width)} | ${shown}`.trimEnd());
  }
  const caretColumn = position.column - 1 - windowStart;
  const rest = Math.max(1, lineOf(text, position.line).length - (position.column - 1));
  const carets = "^".repeat(Math.max(1, Math.min(position.length, rest, maxFrameWidth - caretColumn)));
  rows.push(`${" ".repeat(width)} | ${" ".repeat(caretColumn)}${carets}`);
  return rows;
}

/** Text with control characters (C0, C1, bidirectional overrides) replaced, safe to print on a terminal. */
export function visible(text: string): string {
  return text
    .replaceAll("\t", "  ")
    .replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, "·");
}
