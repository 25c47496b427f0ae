import type { AuthScheme, Server } from "../../contract/model.js";
import { sortedBy } from "../../text/sortedBy.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import type { ContractPlan, RestPlan } from "../../sdk/sdkPlan.js";
import { docComment, propertyName, quoted } from "./escape.js";
import { contractNames } from "./identifiers.js";
import { printReference, type TypePrinter } from "./printType.js";

/** Prints the connection of a contract: its type, its options, and the function that makes one. */
export function printConnect(plan: ContractPlan, printer: TypePrinter): string {
  const names = contractNames(plan.name);
  const rest = plan.protocol === "rest" ? plan : undefined;
  const standing = rest && rest.standing.length > 0 ? standingType(rest, printer) : undefined;
  const baseUrl = rest && defaultUrl(rest.servers) !== undefined ? rest.servers[0] : undefined;
  const auth = rest ? credentials(rest) : [];
  const ownServers = rest ? serversOfCalls(rest) : [];
  const optionFields = [
    ...(baseUrl === undefined
      ? [docComment([baseUrlWords(rest)], "  ") + "  readonly baseUrl: wire.Supplier<string>;\n"]
      : []),
    ...(baseUrl && baseUrl.variables.size > 0 ? [variablesField(baseUrl)] : []),
    ...(ownServers.length > 0 ? [serversField(ownServers)] : []),
    ...(auth.length > 0
      ? [
          `  /** Credentials by scheme; a call uses the first alternative that is supplied. */\n  readonly auth?:\n    | {\n${auth.map(([name, scheme]) => authField(name, scheme)).join("")}      }\n    | undefined;\n`,
        ]
      : []),
    ...(standing === undefined
      ? []
      : [`  /** Parameters that many calls share, supplied once. */\n  readonly standing: ${standing};\n`]),
  ];
  const optional = baseUrl !== undefined && standing === undefined;
  const graphql = plan.protocol === "graphql";
  const optionsBase = graphql ? "wire.GraphqlOptions" : "wire.ConnectionOptions";
  const options = `options: ${names.options}${optional ? " = {}" : ""}`;
  const schemes =
    auth.length > 0
      ? `, options.auth, { ${auth.map(([name, scheme]) => `${propertyName(name)}: ${schemeValue(scheme)}`).join(", ")} }`
      : graphql
        ? ", { ...options.auth }, { bearer: wire.bearer }"
        : "";
  const own = [
    `contract: ${quoted(plan.name)}`,
    ...(standing === undefined ? [] : ["standing: options.standing"]),
    ...(ownServers.length > 0 ? ["servers: options.servers ?? {}"] : []),
    ...(graphql
      ? ["queriesBy: options.queriesBy", "sends: options.sends", "subscriptions: options.subscriptions"]
      : []),
  ];
  return [
    `${docComment([`What \`${names.connect}\` takes.`, otherServers(rest)])}${
      optionFields.length > 0
        ? `export interface ${names.options} extends ${optionsBase} {\n${optionFields.join("")}}\n`
        : `export type ${names.options} = ${optionsBase};\n`
    }`,
    `${docComment([`Where ${plan.title} is, and how its calls get there.`])}export interface ${names.connection} extends wire.${graphql ? "GraphqlConnection" : "Connection"} {\n  readonly contract: ${quoted(plan.name)};\n${
      standing === undefined ? "" : `  readonly standing: ${standing};\n`
    }}\n`,
    `/** Makes a connection. Nothing is sent until a call is made. */\nexport function ${names.connect}(${options}): ${names.connection} {\n` +
      `  const base = wire.connection(${quoted(plan.name)}, ${baseUrl === undefined ? '""' : urlText(baseUrl)}, options${schemes});\n` +
      `  return { ...base, ${own.join(", ")} };\n}\n`,
  ].join("\n");
}

function baseUrlWords(rest: RestPlan | undefined): string {
  if (!rest) return "The URL of the GraphQL endpoint.";
  const [first] = rest.servers;
  return first
    ? `Where the API is; the contract only says \`${first.url}\`.`
    : "Where the API is; the contract does not say.";
}

/** A server's address with the defaults of its variables. */
export function serverUrl(server: Server): string {
  return server.url
    .replace(/\{([^{}]+)\}/g, (whole, name: string) => server.variables.get(name)?.default ?? whole)
    .replace(/\/+$/, "");
}

/** The address to use when the app gives none; undefined when the contract does not say it. */
export function defaultUrl(servers: readonly Server[]): string | undefined {
  const [first] = servers;
  const url = first && serverUrl(first);
  return url !== undefined && /^https?:\/\/[^{}/][^{}]*$/.test(url) ? url : undefined;
}

function urlText(server: Server): string {
  if (server.variables.size === 0) return quoted(serverUrl(server));
  const defaults = [...server.variables].map(
    ([name, variable]) => `${propertyName(name)}: ${quoted(variable.default)}`,
  );
  return `wire.serverUrl(${quoted(server.url.replace(/\/+$/, ""))}, { ${defaults.join(", ")}, ...options.variables })`;
}

function variablesField(server: Server): string {
  const fields = [...server.variables].map(([name, { values, description, default: fallback }]) => {
    const type = values ? values.map(quoted).join(" | ") : "string";
    return `${docComment([description, `When absent: ${JSON.stringify(fallback)}.`], "        ")}        readonly ${propertyName(name)}?: ${type};\n`;
  });
  return `${docComment([`Parts of the address \`${server.url}\`.`], "  ")}  readonly variables?:\n    | {\n${fields.join("")}      }\n    | undefined;\n`;
}

/** Addresses of the servers that single calls have for themselves. */
function serversOfCalls(plan: RestPlan): string[] {
  const urls = plan.calls.flatMap((call) => call.operation.servers.slice(0, 1).map(serverUrl));
  return sortedBy(new Set(urls), (url) => url);
}

function serversField(urls: readonly string[]): string {
  const fields = urls.map((url) => `        readonly ${propertyName(url)}?: wire.Supplier<string> | undefined;\n`);
  return `  /**\n   * Other addresses for calls that have a server of their own, by what the contract calls it. On another origin than\n   * \`baseUrl\`, such a server gets credentials only when it is named here.\n   */\n  readonly servers?:\n    | {\n${fields.join("")}      }\n    | undefined;\n`;
}

function otherServers(rest: RestPlan | undefined): string | undefined {
  const others = rest?.servers.slice(1) ?? [];
  if (others.length === 0) return undefined;
  const lines = others.map(
    ({ url, description }) => `- ${url}${description === undefined ? "" : `: ${description.replace(/\s+/g, " ")}`}`,
  );
  return `Other servers of the contract, for \`baseUrl\`:\n${lines.join("\n")}`;
}

/** The schemes an app supplies something for. */
function credentials(plan: RestPlan): [string, Credential][] {
  return sortedBy(plan.authSchemes, ([name]) => name).flatMap(([name, scheme]) =>
    scheme.kind === "certificate" ? [] : [[name, scheme]],
  );
}

type Credential = Exclude<AuthScheme, { kind: "certificate" }>;

function authField(name: string, scheme: Credential): string {
  const what = credentialWords(scheme);
  return `${docComment([scheme.description, what], "        ")}        readonly ${propertyName(name)}?: wire.Supplier<string> | undefined;\n`;
}

function credentialWords(scheme: Credential): string {
  if (scheme.kind === "key") return `The key for the ${scheme.in} \`${scheme.name}\`.`;
  if (scheme.kind === "scheme") return `What follows \`${scheme.scheme}\` in the Authorization header.`;
  return scheme.kind === "basic" ? 'As "user:password".' : "The bearer token.";
}

function schemeValue(scheme: Credential): string {
  if (scheme.kind === "scheme") return `wire.scheme(${quoted(scheme.scheme)})`;
  if (scheme.kind !== "key") return `wire.${scheme.kind}`;
  if (scheme.in === "query") return `wire.keyInQuery(${quoted(scheme.name)})`;
  return scheme.in === "cookie"
    ? `wire.keyInCookie(${quoted(scheme.name)})`
    : `wire.keyInHeader(${quoted(scheme.name)})`;
}

function standingType(plan: RestPlan, printer: TypePrinter): string {
  const fields = plan.standing.map(
    (each) => `${propertyName(memberNameFrom(each.name))}: ${printReference(each.type, printer, "lenient")}`,
  );
  return `{ ${fields.map((field) => `readonly ${field}`).join("; ")} }`;
}
