import type { Policy } from "../core/change/policy.js";
import type { PagingSettings } from "../core/sdk/planPaging.js";
import type { TypescriptSettings } from "../core/languages/typescript/settings.js";

/** What `rhema.yaml` says, after it was checked against `schema/rhema.schema.json`. */
export interface Configuration {
  readonly contracts: Readonly<Record<string, ContractConfiguration>>;
  readonly sdks: Readonly<Record<string, SdkConfiguration>>;
  readonly guard?: Policy & { readonly since?: string };
  readonly releases?: Readonly<Record<string, string>>;
}

export interface ContractConfiguration {
  readonly from: string | readonly string[] | { readonly run: string };
  readonly headers?: Readonly<Record<string, string>>;
  /** Hosts, with their port, that references and redirects may lead to. */
  readonly hosts?: readonly string[];
  readonly queries?: readonly string[];
  /** Tags that mark queries in source files. */
  readonly tags?: readonly string[];
  /** Which types of a schema the SDK holds: those that queries use, or all. */
  readonly types?: "used" | "all";
  readonly standing?: readonly string[];
  readonly pages?: PagingSettings;
  readonly only?: readonly string[];
  readonly skip?: readonly string[];
  readonly scalars?: Readonly<Record<string, { readonly typescript?: string; readonly format?: string }>>;
}

export interface SdkConfiguration {
  readonly language: "typescript";
  readonly covers: readonly string[];
  readonly into: string;
  readonly settings?: TypescriptSettings;
}
