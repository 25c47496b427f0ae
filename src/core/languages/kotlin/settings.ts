/** Settings of a Kotlin SDK that no other language has; checked by the configuration's schema. */
export interface KotlinSettings {
  /** The package of the SDK. */
  readonly namespace?: string;
  /** Whether there is a list of all GraphQL operations with their hashes, and operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** The SDK is a module with build files of its own. */
  readonly package?: boolean;
  /** Where the SDK stands in what builds it; settled by the files around it. */
  readonly placement?: Placement;
  /** Types of the app's own by the format they stand for. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
}

/** Where an SDK stands in the module that is built with it. */
export interface Placement {
  /** The SDK's folder, seen from the module's. */
  readonly source: string;
  /** The folder around it whose sources are compiled anyway, for example "src/main/kotlin"; absent where there is none. */
  readonly sourceRoot?: string;
  /** The folder of the configuration, seen from the module's; "" where they are the same. */
  readonly project?: string;
}

/** A type of the app's own, and the functions that make it from what is sent and back; all by their whole names. */
export interface OwnFormat {
  readonly type: string;
  readonly decode: string;
  readonly encode: string;
}
