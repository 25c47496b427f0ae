/** No value that can be written down: a known `__typename` is never one, so that comparing with one narrows. */
declare enum Unlisted {
  Newer = "a type that the schema did not have",
}

/** The `__typename` of a type that the schema did not have when this was written. */
export type NewerType = Unlisted;
