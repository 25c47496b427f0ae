/**
 * Where something stands in a text of the user's. Places stay cheap: a JSON pointer (RFC 6901) or a character
 * offset; line and column are worked out only when a person is shown the place.
 */
export type Place = PointerPlace | OffsetPlace;

export interface PointerPlace {
  readonly document: string;
  /** JSON pointer, "" for the whole document. */
  readonly pointer: string;
  /** Point at the key instead of its value. */
  readonly atKey?: boolean;
}

export interface OffsetPlace {
  readonly document: string;
  /** Zero-based character offset into the text. */
  readonly offset: number;
  readonly length: number;
}

/** One text that took part in a run, by the name people know it by (a path relative to the project). */
export interface SourceText {
  readonly document: string;
  readonly text: string;
  /** What its references resolve against, where that is not the document's name: the URL it was fetched from. */
  readonly base?: string;
}

/** Returns the place of a JSON pointer (RFC 6901) in a document. */
export function pointerPlace(document: string, pointer: string): PointerPlace {
  return { document, pointer };
}

/** Escapes one reference token of a JSON pointer (RFC 6901, section 3). */
export function pointerToken(key: string | number): string {
  return String(key).replaceAll("~", "~0").replaceAll("/", "~1");
}

/** A place that spells its pointer only when somebody asks: most places of a contract are never shown. */
class PlaceBelow implements PointerPlace {
  constructor(
    readonly document: string,
    private readonly parent: PointerPlace,
    private readonly key: string | number | undefined,
    private readonly inner: string | number | undefined,
    readonly atKey: boolean,
  ) {}

  get pointer(): string {
    const { parent, key, inner } = this;
    return (
      parent.pointer +
      (key === undefined ? "" : `/${pointerToken(key)}`) +
      (inner === undefined ? "" : `/${pointerToken(inner)}`)
    );
  }
}

/** The place of a member below a pointer place, or of a member of that member. */
export function below(place: PointerPlace, key: string | number, inner?: string | number): PointerPlace {
  return new PlaceBelow(place.document, place, key, inner, false);
}

/** The place of the key of a member of a member. */
export function keyBelow(place: PointerPlace, key: string | number, inner: string | number): PointerPlace {
  return new PlaceBelow(place.document, place, key, inner, true);
}

/** The place at the end of a path of keys. */
export function belowAll(place: PointerPlace, path: readonly string[]): PointerPlace {
  return path.reduce<PointerPlace>((at, key) => below(at, key), place);
}

/** The same place, pointing at the key instead of its value. */
export function atKey(place: PointerPlace): PointerPlace {
  return new PlaceBelow(place.document, place, undefined, undefined, true);
}

/** Splits a JSON pointer into its unescaped tokens. */
export function pointerTokens(pointer: string): string[] {
  return pointer
    .split("/")
    .slice(1)
    .map((token) => token.replaceAll("~1", "/").replaceAll("~0", "~"));
}
