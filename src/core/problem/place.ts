/**
 * A place in a text of the user. Places are cheap: a JSON pointer (RFC 6901) or a character offset. Line and column are
 * computed only when the place is shown.
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

/** A text that took part in a run, with its name for people (a path relative to the project). */
export interface SourceText {
  readonly document: string;
  readonly text: string;
  /** The base of its references, if that is not the document's name: the URL that it was fetched from. */
  readonly base?: string;
}

/**
 * Returns the place of a JSON pointer (RFC 6901) in a document.
 *
 * @param document the name of the document
 * @param pointer "" for the whole document
 */
export function pointerPlace(document: string, pointer: string): PointerPlace {
  return { document, pointer };
}

/**
 * Escapes one reference token of a JSON pointer (RFC 6901, section 3).
 *
 * @param key a key or a list index
 */
export function pointerToken(key: string | number): string {
  return String(key).replaceAll("~", "~0").replaceAll("/", "~1");
}

/** A place that builds its pointer only on demand: most places of a contract are never shown. */
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

/**
 * Returns the place of a member below a pointer place, or of a member of that member.
 *
 * @param key the key or index of the member
 * @param inner the key or index inside the member
 */
export function below(place: PointerPlace, key: string | number, inner?: string | number): PointerPlace {
  return new PlaceBelow(place.document, place, key, inner, false);
}

/**
 * Returns the place of the key of a member of a member.
 *
 * @param key the key or index of the member
 * @param inner the key inside the member
 */
export function keyBelow(place: PointerPlace, key: string | number, inner: string | number): PointerPlace {
  return new PlaceBelow(place.document, place, key, inner, true);
}

/**
 * Returns the place at the end of a path of keys.
 *
 * @param path unescaped keys
 */
export function belowAll(place: PointerPlace, path: readonly string[]): PointerPlace {
  return path.reduce<PointerPlace>((at, key) => below(at, key), place);
}

/** Returns the same place, at the key instead of its value. */
export function atKey(place: PointerPlace): PointerPlace {
  return new PlaceBelow(place.document, place, undefined, undefined, true);
}

/**
 * Splits a JSON pointer into its unescaped tokens.
 *
 * @param pointer "" for the whole document
 */
export function pointerTokens(pointer: string): string[] {
  return pointer
    .split("/")
    .slice(1)
    .map((token) => token.replaceAll("~1", "/").replaceAll("~0", "~"));
}
