import type { Credential } from "../../../sdk/lower/connectionPlan.js";
import { baseUrlWords, credentialWords, otherServersWords } from "../../../sdk/lower/documentation.js";
import type { LoweredRest } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { serverUrl } from "../../../sdk/lower/serverAddress.js";
import { memberNameFrom, NameScope } from "../../../sdk/nameScope.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { ContractContext, GraphqlContext, RestContext } from "../contractContext.js";
import { comment, docComment, parameterLines, quoted } from "../names/escape.js";
import { parameterIdentifier, spelled } from "../names/identifiers.js";
import { printReference } from "../types/printType.js";
import { indented } from "../../indented.js";
import { fileText, listed } from "../swiftFile.js";

/** The parameters of every connection, whatever the contract. */
const ownParameters = ["auth", "baseURL", "servers", "settings", "variables", "wire"];

/** Returns the connection's name of a shared parameter. */
export function standingName(member: string): string {
  const name = parameterIdentifier(member);
  return ownParameters.includes(name) ? `${name}Value` : name;
}

/** A parameter of the connection's initialiser. */
interface Parameter {
  readonly name: string;
  readonly type: string;
  readonly fallback?: string | undefined;
  readonly words: readonly (string | undefined)[];
}

/** Returns the parameters of a connection, by name. */
export function connectionParameters(context: RestContext | GraphqlContext): Parameter[] {
  const { contract, wire } = context;
  const settings = { name: "settings", type: `${wire}.ConnectionSettings`, fallback: ".init()", words: [] };
  if (contract.protocol === "graphql")
    return [
      { name: "baseURL", type: "Swift.String", words: [sentences.endpoint] },
      { name: "bearer", type: `${wire}.Credential?`, fallback: "nil", words: [sentences.bearer] },
      { name: "graphql", type: `${wire}.GraphQLSettings`, fallback: ".init()", words: [] },
      settings,
    ];
  const { server, credentials, ownServers, standing, address } = contract.connection;
  const { paragraphs: words } = baseUrlWords(contract.connection);
  const hasVariables = server !== undefined && server.variables.size > 0;
  const all: Parameter[] = [
    ...(credentials.length > 0
      ? [{ name: "auth", type: "Auth", fallback: ".init()", words: [sentences.credentials] }]
      : []),
    hasVariables
      ? { name: "baseURL", type: "Swift.String?", fallback: "nil", words }
      : { name: "baseURL", type: "Swift.String", fallback: server ? quoted(address ?? "") : undefined, words },
    ...(ownServers.length > 0
      ? [{ name: "servers", type: "Servers", fallback: ".init()", words: [sentences.ownServers] }]
      : []),
    settings,
    ...(hasVariables
      ? [{ name: "variables", type: "Variables", fallback: ".init()", words: [sentences.serverVariables(server.url)] }]
      : []),
    ...standing.map(({ member, parameter }) => ({
      name: standingName(member),
      type: printReference(parameter.type, context),
      words: [parameter.description, sentences.standing],
    })),
  ];
  return sortedBy(all, ({ name }) => name);
}

/** Prints the namespace of a contract, and the connection of its calls. */
export function printConnection(context: RestContext): string {
  const { contract, wire, access, connection } = context;
  const { server, credentials, ownServers, standing, others } = contract.connection;
  const hasVariables = server !== undefined && server.variables.size > 0;
  const url = hasVariables ? `${wire}.serverURL(${quoted(server.url.replace(/\/+$/, ""))}, variables.values)` : "";
  const passed = [
    `contract: ${quoted(contract.plan.name)}`,
    `base: ${hasVariables ? `baseURL ?? ${url}` : "baseURL"}`,
    "settings: settings",
    ...(credentials.length > 0 ? ["credentials: auth.all", "schemes: Auth.schemes"] : []),
    ...(server ? [`contractURL: ${quoted(serverUrl(server))}`] : []),
    ...(ownServers.length > 0 ? ["servers: servers.all"] : []),
  ];
  const members = standing.map(({ member, parameter }) => ({
    name: standingName(member),
    text: `${docComment({ paragraphs: [parameter.description, sentences.standing] }, "  ")}  ${access}let ${spelled(standingName(member))}: ${printReference(parameter.type, context)}\n`,
  }));
  const sets = members.map(({ name }) => `    self.${spelled(name)} = ${spelled(name)}\n`);
  const text =
    `${comment("", sentences.connection(contract.plan.title), otherServersWords(others))}${access}struct ${connection}: Swift.Sendable {\n` +
    `  let wire: ${wire}.Connection\n${members.map((each) => each.text).join("")}\n` +
    `${printInit(connectionParameters(context), access)}${sets.join("")}` +
    `${listed(`    wire = ${wire}.Connection`, passed, "")}\n  }\n}\n`;
  return fileText([
    printNamespace(context, contract.plan.title, "/// How calls read their responses.\n  enum Readings {}"),
    text,
    ...(credentials.length > 0 ? [inConnection(printAuth(contract, context), context)] : []),
    ...(hasVariables ? [inConnection(printVariables(server, context), context)] : []),
    ...(ownServers.length > 0 ? [inConnection(printServers(ownServers, context), context)] : []),
  ]);
}

function printNamespace({ access, space }: ContractContext, title: string, more: string): string {
  return `${comment("", `The types of ${title}.`)}${access}enum ${space} {\n  /// Functions that read and write these types.\n  enum Forms {}\n\n  ${more}\n}\n`;
}

function inConnection(text: string, { connection }: ContractContext): string {
  return `extension ${connection} {\n${indented(text)}}\n`;
}

/** An initialiser up to its body. */
function printInit(parameters: readonly Parameter[], access: string): string {
  const labels = parameters.map(
    ({ name, type, fallback }) => `${spelled(name)}: ${type}${fallback === undefined ? "" : ` = ${fallback}`}`,
  );
  const words = docComment({ paragraphs: [] }, "  ", parameterLines(parameters));
  return `${words}${listed(`  ${access}init`, labels, " {")}\n`;
}

function printAuth({ connection }: LoweredRest, { access, wire }: ContractContext): string {
  const members = named(connection.credentials, (each) => each.name);
  const sorted = sortedBy(members, (each) => each.member);
  const parameters = sorted.map(({ thing, member }) => ({
    name: member,
    type: `${wire}.Credential?`,
    fallback: "nil",
    words: credentialWords(thing.scheme).paragraphs,
  }));
  const all = members.map(({ thing, member }) => `${quoted(thing.name)}: ${spelled(member)}`);
  const schemes = members.map(({ thing }) => `${quoted(thing.name)}: ${schemeText(thing.scheme, wire)}`);
  return (
    `/// ${sentences.credentials}\n${access}struct Auth: Swift.Sendable, Swift.CustomReflectable {\n` +
    `  let all: [Swift.String: ${wire}.Credential?]\n\n${printInit(parameters, access)}${listed("    all = ", all, "", ["[", "]"])}\n  }\n\n` +
    `${listed(`  static let schemes: [Swift.String: ${wire}.Scheme] = `, schemes, "", ["[", "]"])}\n\n` +
    `  /// Hides the credentials in debug output.\n  ${access}var customMirror: Swift.Mirror {\n    Swift.Mirror(self, children: [:])\n  }\n}\n`
  );
}

/** Parts of a contract with the names of their parameters. */
function named<T>(
  things: readonly T[],
  nameOf: (thing: T) => string,
): { readonly thing: T; readonly member: string }[] {
  const scope = new NameScope(["all"]);
  return things.map((thing) => ({
    thing,
    member: scope.claim(parameterIdentifier(memberNameFrom(nameOf(thing))), nameOf(thing)),
  }));
}

function schemeText(scheme: Credential, wire: string): string {
  if (scheme.kind === "scheme") return `${wire}.scheme(${quoted(scheme.scheme)})`;
  if (scheme.kind !== "key") return `${wire}.${scheme.kind}`;
  const writers = { header: "keyInHeader", query: "keyInQuery", cookie: "keyInCookie" };
  return `${wire}.${writers[scheme.in]}(${quoted(scheme.name)})`;
}

function printVariables(server: NonNullable<LoweredRest["connection"]["server"]>, { access }: ContractContext): string {
  const members = named([...server.variables], ([variable]) => variable);
  const parameters = sortedBy(members, ({ member }) => member).map(({ thing: [, variable], member }) => ({
    name: member,
    type: "Swift.String",
    fallback: quoted(variable.default),
    words: [
      variable.description,
      sentences.serverVariable(variable.default),
      variable.values && `One of: ${variable.values.join(", ")}.`,
    ],
  }));
  const all = members.map(({ thing: [variable], member }) => `${quoted(variable)}: ${spelled(member)}`);
  return `${docComment({ paragraphs: [sentences.serverVariables(server.url)] })}${access}struct Variables: Swift.Sendable {\n  let values: [Swift.String: Swift.String]\n\n${printInit(parameters, access)}${listed("    values = ", all, "", ["[", "]"])}\n  }\n}\n`;
}

function printServers(urls: readonly string[], { access }: ContractContext): string {
  const members = named(urls, (url) => url);
  const parameters = sortedBy(members, ({ member }) => member).map(({ thing, member }) => ({
    name: member,
    type: "Swift.String?",
    fallback: "nil",
    words: [`Replaces \`${thing}\`.`],
  }));
  const all = members.map(({ thing, member }) => `${quoted(thing)}: ${spelled(member)}`);
  return `/// ${sentences.ownServers}\n${access}struct Servers: Swift.Sendable {\n  let all: [Swift.String: Swift.String?]\n\n${printInit(parameters, access)}${listed("    all = ", all, "", ["[", "]"])}\n  }\n}\n`;
}

/** Prints the namespace of a GraphQL contract, and the connection of its calls. */
export function printGraphqlConnection(context: GraphqlContext): string {
  const { contract, wire, access, connection } = context;
  const passed = [
    `contract: ${quoted(contract.plan.name)}`,
    "url: baseURL",
    "settings: settings",
    "bearer: bearer",
    "graphql: graphql",
  ];
  return fileText([
    printNamespace(context, contract.plan.title, "/// The texts of the operations.\n  enum Operations {}"),
    `${comment("", sentences.connection(contract.plan.title))}${access}struct ${connection}: Swift.Sendable {\n  let wire: ${wire}.GraphQLConnection\n\n${printInit(connectionParameters(context), access)}${listed(`    wire = ${wire}.GraphQLConnection`, passed, "")}\n  }\n}\n`,
  ]);
}
