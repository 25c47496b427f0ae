/** The settings of a Kotlin SDK that no other language has, validated by the configuration's schema. */
export interface KotlinSettings {
  /** The package of the SDK. */
  readonly namespace?: string;
  /** Whether there is a list of all GraphQL operations with their hashes, and whether operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  /** Whether the SDK is a module with build files of its own. */
  readonly package?: boolean;
  /** The place of the SDK in the app's build, from the files around it. */
  readonly placement?: Placement;
  /** The app's own types by format. */
  readonly formats?: Readonly<Record<string, OwnFormat>>;
}

/** The place of an SDK in the module that is built with it. */
export interface Placement {
  /** The SDK's folder, relative to the module's. */
  readonly source: string;
  /** The folder around it whose sources are compiled anyway, for example "src/main/kotlin"; absent if there is none. */
  readonly sourceRoot?: string;
  /** The folder of the configuration, relative to the module's; "" if they are the same. */
  readonly project?: string;
}

/** A type of the app's own, and the functions that convert it from and to JSON, all with full names. */
export interface OwnFormat {
  readonly type: string;
  readonly decode: string;
  readonly encode: string;
}
