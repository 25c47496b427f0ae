/** A value that nobody can write. A known `__typename` never equals it, so a comparison with one narrows the type. */
declare enum Unlisted {
  Newer = "a type that the schema did not have",
}

/** The `__typename` of a type that the schema did not have when this SDK was generated. */
export type NewerType = Unlisted;
