import type { SdkFacts } from "../change/sdkFacts.js";
import type { RestSettings } from "../sdk/planRest.js";
import type { Feature } from "../sdk/lower/features.js";
import type { LoweredContract, LoweredSdk } from "../sdk/lower/loweredSdk.js";
import type { ContractNames } from "../sdk/contractNames.js";
import type { ContractPlan } from "../sdk/sdkPlan.js";
import type { PageSpelling } from "./pages/pageSpelling.js";
import type { SdkSettings, SettingsDescription } from "./settings.js";

/** What is known of a language without loading it: enough to read a configuration. */
export interface LanguageDescription {
  /** The word of the configuration, which is also the name of its folders. */
  readonly id: string;
  /** As people write it. */
  readonly title: string;
  readonly settings: SettingsDescription;
  /** A sentence about how a change is judged for its source, where that does not go without saying. */
  readonly judging?: string;
  /** JSON Schema of what `scalars.<name>.<id>` says: what a GraphQL scalar is in this language. */
  readonly scalar: object;
}

/** A language that SDKs are written in: the one interface behind which everything of it stands. */
export interface Language extends LanguageDescription {
  /** What the language and the settings of an SDK make of a change. */
  readonly facts: (scope: FactsScope) => SdkFacts;
  /** What a contract as a whole is called by, from its name in the configuration. */
  readonly contractNames: (contract: string) => Pick<ContractNames, "connect">;
  /** The folder of a contract's part, below the SDK's. */
  readonly folder: (contract: string, settings: SdkSettings) => string;
  /** Every identifier of a contract's part of an SDK: legal, unique, and never changed by what stands beside it. */
  readonly names: (plan: ContractPlan) => ContractNames;
  /** What source may name of a GraphQL operation, from the operation's name alone. */
  readonly operationNames: (operation: string) => readonly string[];
  /** The text of every file by its path inside the SDK's folder. */
  readonly print: (sdk: LoweredSdk, printing: Printing) => Map<string, string>;
  /** How the language spells calls where they are shown; absent where nothing shows them. */
  readonly spelling?: (contract: LoweredContract, printing: Pick<Printing, "settings" | "scalars">) => PageSpelling;
  /** The runtime's files that an SDK with some features and settings holds, by path inside the runtime's folder. */
  readonly runtime: (features: ReadonlySet<Feature>, settings: SdkSettings) => readonly string[];
  /** What source can name of a contract's part of an SDK, from the SDK's files by path. */
  readonly exports: (files: ReadonlyMap<string, string>, contract: string) => readonly string[];
}

/** What facts depend on beside the language. */
export interface FactsScope {
  readonly settings: SdkSettings;
  /** What the SDK covers of a REST contract, and how. */
  readonly rest: RestSettings;
  /** What each GraphQL scalar is that the configuration maps. */
  readonly scalars: ReadonlyMap<string, string>;
}

/** What a printer is given beside the plan. */
export interface Printing {
  /** With everything settled that depends on the app. */
  readonly settings: SdkSettings;
  /** Sources of the runtime by path: those that the SDK's features need. */
  readonly runtime: ReadonlyMap<string, string>;
  /** What each GraphQL scalar is that the configuration maps, by contract. */
  readonly scalars: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** GraphQL schemas as text by contract, where a copy is wanted. */
  readonly schemas?: ReadonlyMap<string, string>;
  /** SHA-256 of a text in hexadecimal digits; without it operations have no ids. */
  readonly hash?: (text: string) => string;
}

/** A language of the list: known by its description, and loaded when it is used. */
export interface ListedLanguage extends LanguageDescription {
  readonly load: () => Promise<Language>;
}
