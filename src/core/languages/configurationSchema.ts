import type { LanguageDescription } from "./language.js";
import { sharedSettings, type SharedName } from "./settings.js";

/** The parts of the configuration's JSON Schema that depend on languages. */
interface ConfigurationSchema {
  readonly definitions: Readonly<Record<string, object>> & {
    readonly sdk: { readonly properties: Readonly<Record<string, object>> };
    readonly contract: { readonly properties: Readonly<Record<string, object>> };
  };
}

/**
 * Returns the JSON Schema of the configuration with the parts of languages: their names, their settings, and the types
 * of GraphQL scalars. Earlier parts are replaced.
 *
 * @param schema the configuration's schema, with or without languages
 */
export function withLanguages(schema: unknown, languages: readonly LanguageDescription[]): object {
  const { definitions, ...others } = schema as ConfigurationSchema;
  const { sdk, contract, ...rest } = definitions;
  const kept = Object.entries(rest).filter(([name]) => !name.endsWith(settingsSuffix));
  const scalars = scalarsSchema(contract.properties["scalars"], languages);
  return {
    ...others,
    definitions: {
      ...Object.fromEntries(kept),
      contract: { ...contract, properties: { ...contract.properties, scalars } },
      sdk: {
        ...sdk,
        properties: {
          ...sdk.properties,
          language: { enum: languages.map(({ id }) => id) },
          settings: { type: "object" },
        },
        allOf: languages.map(({ id }) => ({
          if: { properties: { language: { const: id } } },
          then: { properties: { settings: { $ref: `#/definitions/${id}${settingsSuffix}` } } },
        })),
      },
      ...Object.fromEntries(languages.map((each) => [`${each.id}${settingsSuffix}`, settingsSchema(each)])),
    },
  };
}

const settingsSuffix = "Settings";

function settingsSchema({ title, settings: { shared, own } }: LanguageDescription): object {
  const properties = (Object.keys(sharedSettings) as SharedName[]).flatMap((name): [string, object][] => {
    const values: readonly unknown[] | undefined = shared[name]?.values;
    if (!values) return [];
    const { description } = sharedSettings[name];
    const isSwitch = values.every((value) => typeof value === "boolean");
    return [[name, { description, ...(isSwitch ? { type: "boolean" } : { enum: values }) }]];
  });
  return {
    title,
    type: "object",
    additionalProperties: false,
    properties: { ...Object.fromEntries(properties), ...own },
  };
}

function scalarsSchema(scalars: unknown, languages: readonly LanguageDescription[]): object {
  const { additionalProperties, ...others } = scalars as {
    readonly additionalProperties: { readonly properties: { readonly format: object } };
  };
  const { format } = additionalProperties.properties;
  return {
    ...others,
    additionalProperties: {
      ...additionalProperties,
      properties: { ...Object.fromEntries(languages.map(({ id, scalar }) => [id, scalar])), format },
    },
  };
}
