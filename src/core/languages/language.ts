import type { SdkFacts } from "../change/sdkFacts.js";
import type { RestSettings } from "../sdk/planRest.js";
import type { Feature } from "../sdk/lower/features.js";
import type { LoweredContract, LoweredSdk } from "../sdk/lower/loweredSdk.js";
import type { ContractNames } from "../sdk/contractNames.js";
import type { ContractPlan } from "../sdk/sdkPlan.js";
import type { PageSpelling } from "./pages/pageSpelling.js";
import type { SdkSettings, SettingsDescription } from "./settings.js";

/** The facts about a language that are known without loading it, for reading a configuration. */
export interface LanguageDescription {
  /** Its name in the configuration and in folder names. */
  readonly id: string;
  /** Its name for people. */
  readonly title: string;
  readonly settings: SettingsDescription;
  /** A sentence about how a change is rated for source in this language, if that is not obvious. */
  readonly judging?: string;
  /** The JSON Schema of `scalars.<name>.<id>`: the type of a GraphQL scalar in this language. */
  readonly scalar: object;
}

/** A language of SDKs. This is the only interface between the core and a language. */
export interface Language extends LanguageDescription {
  /** Returns the facts that decide how a change affects source, for the settings of an SDK. */
  readonly facts: (scope: FactsScope) => SdkFacts;
  /** Returns the names of a whole contract, from its name in the configuration. */
  readonly contractNames: (contract: string) => Pick<ContractNames, "connect">;
  /** Returns the folder of a contract's part, below the SDK's. */
  readonly folder: (contract: string, settings: SdkSettings) => string;
  /**
   * Returns every name in a contract's part of an SDK. Names are valid and unique, and do not change with their
   * neighbours.
   */
  readonly names: (plan: ContractPlan) => ContractNames;
  /** Returns the names that source can use of a GraphQL operation, from the operation's name alone. */
  readonly operationNames: (operation: string) => readonly string[];
  /** Returns the text of every file, by its path inside the SDK's folder. */
  readonly print: (sdk: LoweredSdk, printing: Printing) => Map<string, string>;
  /** Returns how the language spells calls in documentation; absent if it is not needed. */
  readonly spelling?: (contract: LoweredContract, printing: Pick<Printing, "settings" | "scalars">) => PageSpelling;
  /** Returns the runtime's files for an SDK with some features and settings, by path inside the runtime's folder. */
  readonly runtime: (features: ReadonlySet<Feature>, settings: SdkSettings) => readonly string[];
  /** Returns the names that source can use of a contract's part of an SDK, from the SDK's files by path. */
  readonly exports: (files: ReadonlyMap<string, string>, contract: string) => readonly string[];
}

/** What facts depend on besides the language. */
export interface FactsScope {
  readonly settings: SdkSettings;
  /** The settings for a REST contract's part of the SDK. */
  readonly rest: RestSettings;
  /** The configured type of each mapped GraphQL scalar. */
  readonly scalars: ReadonlyMap<string, string>;
}

/** The input of a printer besides the plan. */
export interface Printing {
  /** The settings, with all values that depend on the app filled in. */
  readonly settings: SdkSettings;
  /** The sources of the runtime by path, with those that the SDK's features need. */
  readonly runtime: ReadonlyMap<string, string>;
  /** The configured type of each mapped GraphQL scalar, by contract. */
  readonly scalars: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** GraphQL schemas as text, by contract, if the SDK gets a copy. */
  readonly schemas?: ReadonlyMap<string, string>;
  /** Returns the SHA-256 of a text in hexadecimal digits. Without it, operations have no ids. */
  readonly hash?: (text: string) => string;
}

/** A language of the list: its description, and a function that loads it. */
export interface ListedLanguage extends LanguageDescription {
  readonly load: () => Promise<Language>;
}
