import { randomBytes } from "node:crypto";
import { visibleLines } from "../../core/text/visible.js";

/**
 * Distinguishes our colours from those in texts. The start of a colour has a mark that nobody can know before the run.
 * In the end, marked colours become colours, and everything else that could steer a terminal is shown as a dot.
 */
export class ColourMarks {
  private readonly begin = `\u001b${randomBytes(4).toString("hex")}[`;

  /** Returns a painter with marked colours. */
  paintedBy(colour: (text: string) => string): (text: string) => string {
    return (text) => colour(this.shown(text)).replaceAll("\u001b[", this.begin);
  }

  /** Returns a text with its marked colours, and nothing else that steers a terminal. */
  shown(text: string): string {
    return text.split(this.begin).map(visibleLines).join("\u001b[");
  }
}
