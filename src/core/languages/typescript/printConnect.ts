import type { AuthScheme, Server } from "../../contract/model.js";
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
  const baseUrl = rest ? defaultUrl(rest.servers) : undefined;
  const auth = rest ? [...rest.authSchemes].sort(([a], [b]) => (a < b ? -1 : 1)) : [];
  const optionFields = [
    ...(baseUrl === undefined
      ? [
          docComment(
            [rest ? "Where the API is; the contract does not say." : "The URL of the GraphQL endpoint."],
            "  ",
          ) + "  readonly baseUrl: wire.Supplier<string>;\n",
        ]
      : []),
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
  const options = `options: ${names.options}${optional ? " = {}" : ""}`;
  const schemes =
    auth.length > 0
      ? `, options.auth, { ${auth.map(([name, scheme]) => `${propertyName(name)}: ${schemeValue(scheme)}`).join(", ")} }`
      : "";
  return [
    `${docComment([`What \`${names.connect}\` takes.`])}${
      optionFields.length > 0
        ? `export interface ${names.options} extends wire.ConnectionOptions {\n${optionFields.join("")}}\n`
        : `export type ${names.options} = wire.ConnectionOptions;\n`
    }`,
    `${docComment([`Where ${plan.title} is, and how its calls get there.`])}export interface ${names.connection} extends wire.Connection {\n  readonly contract: ${quoted(plan.name)};\n${
      standing === undefined ? "" : `  readonly standing: ${standing};\n`
    }}\n`,
    `/** Makes a connection. Nothing is sent until a call is made. */\nexport function ${names.connect}(${options}): ${names.connection} {\n` +
      `  const base = wire.connection(${quoted(plan.name)}, ${baseUrl === undefined ? '""' : quoted(baseUrl)}, options${schemes});\n` +
      `  return { ...base, contract: ${quoted(plan.name)}${standing === undefined ? "" : ", standing: options.standing"} };\n}\n`,
  ].join("\n");
}

/** The first server with its variables' defaults; undefined when it is relative or missing, so that the app has to say. */
export function defaultUrl(servers: readonly Server[]): string | undefined {
  const [first] = servers;
  if (!first) return undefined;
  const url = first.url.replace(/\{([^{}]+)\}/g, (whole, name: string) => first.variables.get(name) ?? whole);
  return /^https?:\/\/[^{}]+$/.test(url) ? url.replace(/\/+$/, "") : undefined;
}

function authField(name: string, scheme: AuthScheme): string {
  const what =
    scheme.kind === "key"
      ? `The key for the ${scheme.in} \`${scheme.name}\`.`
      : scheme.kind === "basic"
        ? 'As "user:password".'
        : "The bearer token.";
  return `${docComment([scheme.description, what], "        ")}        readonly ${propertyName(name)}?: wire.Supplier<string> | undefined;\n`;
}

function schemeValue(scheme: AuthScheme): string {
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
