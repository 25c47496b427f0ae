import type { Place } from "./place.js";
import type { Position } from "./position.js";
import { ShownText } from "./shownText.js";

/** Texts by their names in problems, for showing places in them. */
export class ShownTexts {
  private readonly known = new Map<string, ShownText>();

  /** @param textOf returns the text of a document; undefined if it is not available */
  constructor(private readonly textOf: (document: string) => string | undefined) {}

  /** Returns a document's text; undefined if it is not available. */
  find(document: string): ShownText | undefined {
    const text = this.textOf(document);
    if (text === undefined) return undefined;
    const known = this.known.get(document);
    if (known?.text === text) return known;
    const shown = new ShownText(text);
    this.known.set(document, shown);
    return shown;
  }

  /** Returns the line and column of a place; undefined if its text is not available. */
  position(place: Place): Position | undefined {
    return this.find(place.document)?.position(place);
  }
}
