/** Settings of a Kotlin SDK that no other language has; checked by the configuration's schema. */
export interface KotlinSettings {
  /** The package of the SDK. */
  readonly namespace?: string;
  /** Whether there is a list of all GraphQL operations with their hashes, and operations have ids. */
  readonly manifest?: boolean;
  /** Types of the app's own by the format they stand for. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
}

/** A type of the app's own, and the functions that make it from what is sent and back; all by their whole names. */
export interface OwnFormat {
  readonly type: string;
  readonly decode: string;
  readonly encode: string;
}
