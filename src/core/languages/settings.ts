import type { SharedSettings } from "../sdk/lower/sharedSettings.js";

/** The value of `sdks.<name>.settings`, validated by the configuration's schema. */
export type SdkSettings = Readonly<Record<string, unknown>>;

/** The settings that more than one language has. Their meaning is the same everywhere. */
export type SharedName = Exclude<keyof SharedSettings, "ownFormats">;

/** The settings of a language. */
export interface SettingsDescription {
  /** The shared settings that it supports, with the possible values and the default. */
  readonly shared: { readonly [Name in SharedName]?: SharedChoice<SharedSettings[Name]> };
  /** Its own settings, as properties of a JSON Schema. */
  readonly own: Readonly<Record<string, object>>;
}

export interface SharedChoice<Value> {
  readonly values: readonly Value[];
  readonly usual: Value;
  /** A setting of the language's own that needs a value of this one. If it is set, that value applies. */
  readonly implied?: { readonly by: string; readonly value: Value };
}

/** The descriptions of the shared settings, and the values for languages that do not have them. */
export const sharedSettings: {
  readonly [Name in SharedName]: { readonly description: string; readonly otherwise: SharedSettings[Name] };
} = {
  dates: {
    description: "The type of date-times in the app: a string, or the language's own type.",
    otherwise: "text",
  },
  int64: { description: "The type of 64-bit integers in the app.", otherwise: "number" },
  choices: {
    description: "Whether a response may contain an enum value that the contract does not list.",
    otherwise: "closed",
  },
  failures: {
    description: "Whether calls throw their failures or return them.",
    otherwise: "throw",
  },
  verify: {
    description: "Whether JSON responses of REST calls are validated against the contract before they are used.",
    otherwise: "none",
  },
  unions: {
    description: "Whether unions in GraphQL responses have a member for types that the schema does not have yet.",
    otherwise: "closed",
  },
  fragments: {
    description:
      "The fields of a GraphQL fragment: visible wherever it is spread, visible after unsealing only, or in a type of their own.",
    otherwise: "inline",
  },
  testing: {
    description: "Whether the SDK has a module for unit tests, with a fake connection and sample builders.",
    otherwise: false,
  },
  cached: {
    description:
      "Whether the SDK has a module of calls with a key and a function, for libraries that cache responses for screens.",
    otherwise: false,
  },
};

/** Returns the shared settings of an SDK: the configured values, otherwise the language's defaults. */
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
