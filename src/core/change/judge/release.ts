/** A released app, with the share of all users who have it, as a fraction, if it is known. */
export interface Release {
  readonly name: string;
  readonly share?: number | undefined;
}

/** The releases that a change breaks. */
export interface BrokenReleases {
  readonly releases: readonly string[];
  /** The share of their users, as a fraction; absent if none is known. */
  readonly share?: number;
}
