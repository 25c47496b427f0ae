import type { Policy } from "../../core/change/judge/policy.js";
import type { PagingSettings } from "../../core/sdk/planPaging.js";
import type { SharedSettings } from "../../core/sdk/lower/sharedSettings.js";

/** The content of `rhema.yaml`, validated against `schema/rhema.schema.json`. */
export interface Configuration {
  readonly contracts: Readonly<Record<string, ContractConfiguration>>;
  readonly sdks: Readonly<Record<string, SdkConfiguration>>;
  /** Whether there is a file with the GraphQL schemas for editors. */
  readonly editors?: boolean;
  readonly guard?: Policy & { readonly since?: string };
  readonly releases?: Readonly<Record<string, string | ReleaseConfiguration>>;
  /** A CSV with the shares of users of the releases, or a command that prints one. */
  readonly shares?: { readonly from?: string; readonly run?: string };
}

export interface ReleaseConfiguration {
  /** The state: `git:` and a revision, a file or a URL. */
  readonly at: string;
  /** The share of users who have it, from 0 to 1. */
  readonly share?: number;
}

export interface ContractConfiguration {
  readonly from: string | readonly string[] | { readonly run: string };
  readonly headers?: Readonly<Record<string, string>>;
  /** Hosts, with their port, to which references and redirects may lead. */
  readonly hosts?: readonly string[];
  readonly queries?: readonly string[];
  /** Tags that mark queries in source files. */
  readonly tags?: readonly string[];
  /** Which types of a schema the SDK contains: those that queries use, or all. */
  readonly types?: "used" | "all";
  readonly standing?: readonly string[];
  readonly pages?: PagingSettings;
  readonly only?: readonly string[];
  readonly skip?: readonly string[];
  /** The type of each GraphQL scalar: in JSON by its format, in an SDK by the language. */
  readonly scalars?: Readonly<Record<string, Readonly<Record<string, string>>>>;
}

export interface SdkConfiguration {
  readonly language: string;
  readonly covers: readonly string[];
  readonly into: string;
  readonly settings?: SettingsWritten;
  /** How the app is checked for `impact --prove`. */
  readonly proof?: { readonly run: string };
}

/** Settings as written: the shared ones that the workspace itself reads, and all others of the language. */
export interface SettingsWritten extends Partial<Omit<SharedSettings, "ownFormats">> {
  /** The app's own types by format. */
  readonly formats?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Whether there is a list of all operations with their hashes, and whether operations have ids. */
  readonly manifest?: boolean;
  /** Whether there is a copy of the GraphQL schema as text. */
  readonly schema?: boolean;
  readonly [setting: string]: unknown;
}
