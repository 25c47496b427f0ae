/** A released app, with the share of all users who have it where that is known: a fraction. */
export interface Release {
  readonly name: string;
  readonly share?: number | undefined;
}

/** The releases that a change breaks. */
export interface BrokenReleases {
  readonly releases: readonly string[];
  /** The users of those releases, as a fraction of all; absent where no share of them is known. */
  readonly share?: number;
}
