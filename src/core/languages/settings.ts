import type { SharedSettings } from "../sdk/lower/sharedSettings.js";

/** What `sdks.<name>.settings` says, checked by the configuration's schema. */
export type SdkSettings = Readonly<Record<string, unknown>>;

/** The settings that more than one language has; what they mean is the same everywhere. */
export type SharedName = Exclude<keyof SharedSettings, "ownFormats">;

/** Which settings a language has. */
export interface SettingsDescription {
  /** Shared settings that it takes: the values that it knows, and the one that holds where nothing is said. */
  readonly shared: { readonly [Name in SharedName]?: SharedChoice<SharedSettings[Name]> };
  /** Settings of its own, as properties of a JSON Schema. */
  readonly own: Readonly<Record<string, object>>;
}

export interface SharedChoice<Value> {
  readonly values: readonly Value[];
  readonly usual: Value;
  /** A setting of the language's own that needs a value of this one: where it says something, that one holds. */
  readonly implied?: { readonly by: string; readonly value: Value };
}

/** The shared settings in words, and what holds for a language that does not take one. */
export const sharedSettings: {
  readonly [Name in SharedName]: { readonly description: string; readonly otherwise: SharedSettings[Name] };
} = {
  dates: {
    description: "How instants (format date-time) reach the app: as text, or decoded to the language's own type.",
    otherwise: "text",
  },
  int64: { description: "How 64-bit integers reach the app.", otherwise: "number" },
  choices: {
    description: "Whether an answer may hold a choice that the contract does not list.",
    otherwise: "closed",
  },
  failures: {
    description: "Whether calls throw their failures, or return them beside their answers.",
    otherwise: "throw",
  },
  verify: {
    description: "Whether JSON answers of REST calls are held against the contract before they are used.",
    otherwise: "none",
  },
  unions: {
    description: "Whether a union of a GraphQL answer has a member for types that the schema does not have yet.",
    otherwise: "closed",
  },
  fragments: {
    description:
      "Whether the fields of a GraphQL fragment are seen where it is spread, or only by who unseals it, or whether it is a type that answers have.",
    otherwise: "inline",
  },
  testing: {
    description: "Whether there is a module for unit tests: a fake connection and builders of samples.",
    otherwise: false,
  },
  cached: {
    description:
      "Whether there is a module of described calls, each with a key and a function, for what keeps answers for screens.",
    otherwise: false,
  },
};

/** The shared settings of an SDK: what its configuration says, else the language's default. */
export function settledSettings({ shared }: SettingsDescription, settings: SdkSettings): SharedSettings {
  const value = <Name extends SharedName>(name: Name): SharedSettings[Name] => {
    const choice: SharedChoice<SharedSettings[Name]> | undefined = shared[name];
    const { implied } = choice ?? {};
    if (implied && saysSomething(settings[implied.by])) return implied.value;
    return (settings[name] as SharedSettings[Name] | undefined) ?? choice?.usual ?? sharedSettings[name].otherwise;
  };
  return {
    dates: value("dates"),
    int64: value("int64"),
    choices: value("choices"),
    unions: value("unions"),
    fragments: value("fragments"),
    failures: value("failures"),
    verify: value("verify"),
    testing: value("testing"),
    cached: value("cached"),
    ownFormats: new Set(Object.keys((settings["formats"] as object | undefined) ?? {})),
  };
}

function saysSomething(setting: unknown): boolean {
  return Array.isArray(setting) ? setting.length > 0 : setting !== undefined;
}
