import { sentences } from "../../../sdk/lower/sentences.js";
import type { Server } from "../../../contract/model.js";
import type { ConnectionPlan, Credential, StandingMember } from "../../../sdk/lower/connectionPlan.js";
import { baseUrlWords, credentialWords, otherServersWords, type Words } from "../../../sdk/lower/documentation.js";
import { serverUrl } from "../../../sdk/lower/serverAddress.js";
import type { ContractContext } from "../contractContext.js";
import { comment, docComment, propertyName, quoted } from "../names/escape.js";
import { printReference, type TypePrinter } from "../types/printType.js";

/** Prints the connection of a contract: its type, its options, and the function that creates one. */
export function printConnect({ contract, names: { contract: names }, printer }: ContractContext): string {
  const { plan } = contract;
  const rest = contract.protocol === "rest" ? contract.connection : undefined;
  const standing = rest && rest.standing.length > 0 ? standingType(rest.standing, printer) : undefined;
  const server = rest?.server;
  const auth = rest?.credentials ?? [];
  const ownServers = rest?.ownServers ?? [];
  const optional = server !== undefined && standing === undefined;
  const optionsBase = rest ? "wire.ConnectionOptions" : "wire.GraphqlOptions";
  const options = `options: ${names.options}${optional ? " = {}" : ""}`;
  const optionFields = [
    ...(server ? [] : [docComment(urlWords(rest), "  ") + "  readonly baseUrl: wire.Supplier<string>;\n"]),
    ...(server && server.variables.size > 0 ? [variablesField(server)] : []),
    ...(ownServers.length > 0 ? [serversField(ownServers)] : []),
    ...(auth.length > 0
      ? [
          `  /** ${sentences.credentials} */\n  readonly auth?:\n    | {\n${auth.map(authField).join("")}      }\n    | undefined;\n`,
        ]
      : []),
    ...(standing === undefined ? [] : [`  /** ${sentences.standing} */\n  readonly standing: ${standing};\n`]),
  ];
  const schemes =
    auth.length > 0
      ? `, options.auth, { ${auth.map(({ name, scheme }) => `${propertyName(name)}: ${schemeValue(scheme)}`).join(", ")} }`
      : rest
        ? ""
        : ", { ...options.auth }, { bearer: wire.bearer }";
  const own = [
    `contract: ${quoted(plan.name)}`,
    ...(standing === undefined ? [] : ["standing: options.standing"]),
    ...(ownServers.length > 0 ? ["servers: options.servers ?? {}"] : []),
    ...(rest ? [] : ["queriesBy: options.queriesBy", "sends: options.sends", "subscriptions: options.subscriptions"]),
  ];
  return [
    `${comment(sentences.connectionOptions(names.connect), otherServersWords(rest?.others ?? []))}${
      optionFields.length > 0
        ? `export interface ${names.options} extends ${optionsBase} {\n${optionFields.join("")}}\n`
        : `export type ${names.options} = ${optionsBase};\n`
    }`,
    `${comment(sentences.connection(plan.title))}export interface ${names.connection} extends wire.${rest ? "Connection" : "GraphqlConnection"} {\n  readonly contract: ${quoted(plan.name)};\n${
      standing === undefined ? "" : `  readonly standing: ${standing};\n`
    }}\n`,
    `/** ${sentences.connect} */\nexport function ${names.connect}(${options}): ${names.connection} {\n` +
      `  const base = wire.connection(${quoted(plan.name)}, ${server === undefined ? '""' : urlText(server)}, options${schemes});\n` +
      `  return { ...base, ${own.join(", ")} };\n}\n`,
  ].join("\n");
}

function urlWords(rest: ConnectionPlan | undefined): Words {
  return rest ? baseUrlWords(rest) : { paragraphs: [sentences.endpoint] };
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
    return `${docComment({ paragraphs: [description ?? "", sentences.serverVariable(fallback)] }, "        ")}        readonly ${propertyName(name)}?: ${type};\n`;
  });
  return `${docComment({ paragraphs: [sentences.serverVariables(server.url)] }, "  ")}  readonly variables?:\n    | {\n${fields.join("")}      }\n    | undefined;\n`;
}

function serversField(urls: readonly string[]): string {
  const fields = urls.map((url) => `        readonly ${propertyName(url)}?: wire.Supplier<string> | undefined;\n`);
  return `${docComment({ paragraphs: [sentences.ownServers] }, "  ")}  readonly servers?:\n    | {\n${fields.join("")}      }\n    | undefined;\n`;
}

function authField({ name, scheme }: { readonly name: string; readonly scheme: Credential }): string {
  return `${docComment(credentialWords(scheme), "        ")}        readonly ${propertyName(name)}?: wire.Supplier<string> | undefined;\n`;
}

function schemeValue(scheme: Credential): string {
  if (scheme.kind === "scheme") return `wire.scheme(${quoted(scheme.scheme)})`;
  if (scheme.kind !== "key") return `wire.${scheme.kind}`;
  if (scheme.in === "query") return `wire.keyInQuery(${quoted(scheme.name)})`;
  return scheme.in === "cookie"
    ? `wire.keyInCookie(${quoted(scheme.name)})`
    : `wire.keyInHeader(${quoted(scheme.name)})`;
}

function standingType(standing: readonly StandingMember[], printer: TypePrinter): string {
  const fields = standing.map(
    ({ member, parameter }) => `${propertyName(member)}: ${printReference(parameter.type, printer, "lenient")}`,
  );
  return `{ ${fields.map((field) => `readonly ${field}`).join("; ")} }`;
}
