/** Settings of a Swift SDK that not every language has; checked by the configuration's schema. */
export interface SwiftSettings {
  /** What the names of the SDK's namespaces begin with. */
  readonly prefix?: string;
  /** Whether there is a list of all GraphQL operations with their hashes, and operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** The SDK is a package of its own. */
  readonly package?: boolean;
  /** Types of the app's own by the format they stand for. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
}

/** A type of the app's own, and the functions that make it from what is sent and back. */
export interface OwnFormat {
  readonly from?: string;
  readonly type: string;
  readonly decode: string;
  readonly encode: string;
}
