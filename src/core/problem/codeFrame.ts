import { maskSecrets } from "../text/secrets.js";
import { visible } from "../text/visible.js";
import type { Position } from "./position.js";
import type { ShownText } from "./shownText.js";

/** With its number and indentation, a frame then fits in 80 columns. */
const maxFrameWidth = 68;
/**
 * The number of characters next to the window that are read too, so that a credential that the window cuts is
 * recognised.
 */
const around = 1_000;

/**
 * Returns the line of a position with the line before it, numbered, and a caret line below.
 *
 * Long lines are cut to a window around the column. Credentials are masked, and invisible characters are shown as a
 * middle dot, so that a hostile text cannot steer a terminal.
 *
 * @param text the whole text
 * @param position one-based line and column
 * @returns at most three lines, without line endings
 */
export function codeFrame(text: ShownText, position: Position): string[] {
  const first = Math.max(1, position.line - 1);
  const width = String(position.line).length;
  const windowStart = Math.max(0, position.column - 1 - maxFrameWidth + 20);
  const rows: string[] = [];
  for (let line = first; line <= position.line; line++) {
    const start = Math.max(0, windowStart - around);
    const safe = maskSecrets(text.line(line).slice(start, windowStart + maxFrameWidth + around));
    const shown = visible(safe.slice(windowStart - start, windowStart - start + maxFrameWidth));
    rows.push(`${String(line).padStart(width)} | ${shown}`.trimEnd());
  }
  const caretColumn = position.column - 1 - windowStart;
  const rest = Math.max(1, text.line(position.line).length - (position.column - 1));
  const carets = "^".repeat(Math.max(1, Math.min(position.length, rest, maxFrameWidth - caretColumn)));
  rows.push(`${" ".repeat(width)} | ${" ".repeat(caretColumn)}${carets}`);
  return rows;
}
