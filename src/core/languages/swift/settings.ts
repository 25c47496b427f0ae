/** The settings of a Swift SDK that not every language has, validated by the configuration's schema. */
export interface SwiftSettings {
  /** The prefix of the SDK's namespaces. */
  readonly prefix?: string;
  /** Whether there is a list of all GraphQL operations with their hashes, and whether operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** Whether the SDK is a package of its own. */
  readonly package?: boolean;
  /** The app's own types by format. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
}

/** A type of the app's own, and the functions that convert it from and to JSON. */
export interface OwnFormat {
  readonly from?: string;
  readonly type: string;
  readonly decode: string;
  readonly encode: string;
}
