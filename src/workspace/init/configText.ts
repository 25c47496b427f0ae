/** A contract in the first configuration. */
export interface FirstContract {
  readonly name: string;
  readonly from: string | readonly string[] | { readonly run: string };
  readonly headers: Readonly<Record<string, string>>;
  /** GraphQL: the patterns of query documents. */
  readonly queries: readonly string[] | undefined;
  /** GraphQL: the custom scalars of the schema. */
  readonly scalars: readonly string[];
  /** A description in a few words. */
  readonly about: string;
}

export interface FirstConfiguration {
  readonly contracts: readonly FirstContract[];
  readonly sdk: string;
  /** The configuration's name for its language. */
  readonly language: string;
  readonly into: string;
  readonly settings: Readonly<Record<string, string>>;
  /** The configured type of a scalar that is a string in the app. */
  readonly textScalar: string;
  /** The path to the configuration's schema for editors, if it is installed there. */
  readonly schema: string | undefined;
}

/** Returns the text of a first `rhema.yaml`: the chosen values, and other options as comments. */
export function configText({ contracts, sdk, language, into, schema, ...more }: FirstConfiguration): string {
  const settings = Object.entries(more.settings).map(([key, value]) => `${key}: ${scalar(value)}`);
  const covers = contracts.map(({ name }) => name);
  return [
    "# Contracts and SDKs of this project, for `rhema generate`.",
    ...(schema === undefined ? [] : [`# yaml-language-server: $schema=${schema}`]),
    "contracts:",
    ...contracts.flatMap((contract) => contractLines(contract, `${language}: ${more.textScalar}`)),
    "sdks:",
    `  ${sdk}:`,
    `    language: ${language}`,
    `    covers: [${covers.join(", ")}]`,
    `    into: ${scalar(into)} # Rhema replaces only files that it wrote`,
    ...(settings.length === 0
      ? ["    # settings: { dates: decoded, testing: true }"]
      : [`    settings: { ${settings.join(", ")} } # dates: decoded, testing: true`]),
    "",
    ...(contracts.some(({ queries }) => queries !== undefined)
      ? ["# editors: true # also writes .graphqlrc.yml, for GraphQL plug-ins of editors", ""]
      : []),
    "# What `rhema check` compares with, in CI:",
    "# guard: { since: git:origin/main }",
    "",
  ].join("\n");
}

function contractLines({ name, from, headers, queries, scalars, about }: FirstContract, text: string): string[] {
  const sent = Object.entries(headers);
  return [
    `  ${name}: # ${about.replace(/\s+/g, " ")}`,
    `    from: ${fromText(from)}`,
    ...(sent.length === 0
      ? []
      : ["    headers:", ...sent.map(([header, value]) => `      ${scalar(header)}: ${scalar(value)}`)]),
    ...(queries === undefined
      ? ['    # only: ["GET /**"]      # keep some operations; skip: […] leaves some out']
      : [`    queries: [${queries.map((pattern) => JSON.stringify(pattern)).join(", ")}]`]),
    ...(scalars.length === 0 ? [] : [`    # scalars: { ${scalars.map((each) => `${each}: { ${text} }`).join(", ")} }`]),
  ];
}

function fromText(from: FirstContract["from"]): string {
  if (typeof from === "string") return scalar(from);
  return "run" in from ? `{ run: ${JSON.stringify(from.run)} }` : `[${from.map(scalar).join(", ")}]`;
}

/** Quoted unless it is certain to be plain. */
function scalar(text: string): string {
  return /^(?:https?:\/\/)?[A-Za-z_][\w./-]*(?::\d+[\w./-]*)?$/.test(text) &&
    !/^(?:true|false|null|yes|no|on|off)$/i.test(text)
    ? text
    : JSON.stringify(text);
}
