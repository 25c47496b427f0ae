import { randomBytes } from "node:crypto";
import { visibleLines } from "../../core/text/visible.js";

/**
 * Tells colours of ours from those that a text brings along. What begins a colour carries a mark that nobody can know
 * before the run; when all is said, marked colours become colours, and whatever else could steer a terminal is shown as a
 * dot.
 */
export class ColourMarks {
  private readonly begin = `\u001b${randomBytes(4).toString("hex")}[`;

  /** A painter whose colours are marked. */
  paintedBy(colour: (text: string) => string): (text: string) => string {
    return (text) => colour(this.shown(text)).replaceAll("\u001b[", this.begin);
  }

  /** A text with its marked colours, and nothing else that steers a terminal. */
  shown(text: string): string {
    return text.split(this.begin).map(visibleLines).join("\u001b[");
  }
}
