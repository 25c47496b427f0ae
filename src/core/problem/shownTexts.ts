import type { Place } from "./place.js";
import type { Position } from "./position.js";
import { ShownText } from "./shownText.js";

/** Texts by the names that problems use, to show places in them. */
export class ShownTexts {
  private readonly known = new Map<string, ShownText>();

  /** @param textOf the text of a document; undefined when it is not at hand */
  constructor(private readonly textOf: (document: string) => string | undefined) {}

  /** A document's text; undefined when it is not at hand. */
  find(document: string): ShownText | undefined {
    const text = this.textOf(document);
    if (text === undefined) return undefined;
    const known = this.known.get(document);
    if (known?.text === text) return known;
    const shown = new ShownText(text);
    this.known.set(document, shown);
    return shown;
  }

  /** Line and column of a place; undefined when its text is not at hand. */
  position(place: Place): Position | undefined {
    return this.find(place.document)?.position(place);
  }
}
