import type { Credential } from "../../../sdk/lower/connectionPlan.js";
import { baseUrlWords, credentialWords, otherServersWords } from "../../../sdk/lower/documentation.js";
import type { LoweredRest } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { serverUrl } from "../../../sdk/lower/serverAddress.js";
import { NameScope, memberNameFrom } from "../../../sdk/nameScope.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { inFile, type FileContext, type GraphqlContext, type RestContext } from "../contractContext.js";
import { comment, docComment, quoted } from "../names/escape.js";
import { memberIdentifier, spelled, takenProperties } from "../names/identifiers.js";
import { fileText } from "../kotlinFile.js";
import { orNull, printReference } from "../types/printType.js";

/** The parameters of every connection, whatever the contract. */
const ownParameters: ReadonlySet<string> = new Set([
  ...takenProperties,
  "auth",
  "baseUrl",
  "servers",
  "settings",
  "variables",
]);

/** Returns the connection's name of a shared parameter. */
export function standingName(member: string): string {
  return memberIdentifier(member, ownParameters, "Value");
}

/** A parameter of a connection's constructor. */
export interface ConnectionParameter {
  readonly name: string;
  /** Its type and its default. */
  readonly declared: string;
}

/** Returns the parameters of a connection, by name, without those for its address. */
export function connectionParameters(context: (RestContext | GraphqlContext) & FileContext): ConnectionParameter[] {
  const { contract, uses, names } = context;
  const settings = uses.wire("ConnectionSettings");
  const found: ConnectionParameter[] = [{ name: "settings", declared: `${settings} = ${settings}()` }];
  if (contract.protocol === "graphql") {
    const graphql = uses.wire("GraphqlSettings");
    found.push(
      { name: "bearer", declared: `${orNull(uses.wire("Credential"))} = null` },
      { name: "graphql", declared: `${graphql} = ${graphql}()` },
    );
  } else {
    const { auth } = names.contract;
    if (contract.connection.credentials.length > 0) found.push({ name: "auth", declared: `${auth} = ${auth}()` });
    for (const { member, parameter } of contract.connection.standing)
      found.push({ name: standingName(member), declared: printReference(parameter.type, context) });
  }
  return sortedBy(found, ({ name }) => name);
}

/** Prints the connection of a REST contract, and the classes of its parameters. */
export function printConnection(given: RestContext): string {
  const context = inFile(given);
  const { contract, uses } = context;
  const names = context.names.contract;
  const { server, credentials, ownServers, standing, others, address } = contract.connection;
  const parameters: { readonly name: string; readonly text: string }[] = [];
  const add = (name: string, text: string): void => void parameters.push({ name, text });
  if (credentials.length > 0)
    add("auth", `    /** ${sentences.credentials} */\n    auth: ${names.auth} = ${names.auth}(),\n`);
  const hasVariables = server !== undefined && server.variables.size > 0;
  if (hasVariables)
    add(
      "variables",
      `${docComment({ paragraphs: [sentences.serverVariables(server.url)] }, "    ")}    variables: ${names.variables} = ${names.variables}(),\n`,
    );
  const url = hasVariables
    ? `${uses.wire("serverUrl")}(${quoted(server.url.replace(/\/+$/, ""))}, variables.values)`
    : quoted(address ?? "");
  const base = hasVariables ? "    baseUrl: String? = null,\n" : `    baseUrl: String${server ? ` = ${url}` : ""},\n`;
  add("baseUrl", `${docComment(baseUrlWords(contract.connection), "    ")}${base}`);
  if (ownServers.length > 0)
    add("servers", `    /** ${sentences.ownServers} */\n    servers: ${names.servers} = ${names.servers}(),\n`);
  const settings = uses.wire("ConnectionSettings");
  add("settings", `    settings: ${settings} = ${settings}(),\n`);
  for (const { member, parameter } of standing) {
    const type = printReference(parameter.type, context);
    add(
      standingName(member),
      `${docComment({ paragraphs: [parameter.description, sentences.standing] }, "    ")}    public val ${spelled(standingName(member))}: ${type},\n`,
    );
  }
  const passed = [
    `contract = ${quoted(contract.plan.name)}`,
    `base = ${hasVariables ? `baseUrl ?: ${url}` : "baseUrl"}`,
    "settings = settings",
    ...(credentials.length > 0 ? ["credentials = auth.all", `schemes = ${names.auth}.schemes`] : []),
    ...(server ? [`contractUrl = ${quoted(serverUrl(server))}`] : []),
    ...(ownServers.length > 0 ? ["servers = servers.all"] : []),
  ];
  // A parameter without a default would move when parameters before it change, unless it is passed by name.
  const sorted = sortedBy(parameters, ({ name }) => name).map(({ text }) => text);
  const connection = `${comment(sentences.connection(contract.plan.title), otherServersWords(others))}public class ${names.connection}(\n${sorted.join("")}) : ${uses.wire("Connection")}(\n${passed.map((each) => `        ${each},\n`).join("")}    )\n`;
  const parts = [
    connection,
    ...(credentials.length > 0 ? [printAuth(contract, names.auth, uses)] : []),
    ...(hasVariables ? [printVariables(server, names.variables)] : []),
    ...(ownServers.length > 0 ? [printServers(ownServers, names.servers)] : []),
  ];
  return fileText({ package: context.package, uses, parts });
}

type Uses = ReturnType<typeof inFile>["uses"];

function printAuth({ connection }: LoweredRest, name: string, uses: Uses): string {
  const members = named(connection.credentials, (each) => each.name);
  const credential = uses.wire("Credential");
  const lines = sortedBy(members, (each) => each.member).map(
    ({ thing, member }) =>
      `${docComment(credentialWords(thing.scheme), "    ")}    ${spelled(member)}: ${orNull(credential)} = null,\n`,
  );
  const all = members.map(({ thing, member }) => `        ${quoted(thing.name)} to ${spelled(member)},\n`);
  const schemes = members.map(
    ({ thing }) => `            ${quoted(thing.name)} to ${schemeText(thing.scheme, uses)},\n`,
  );
  return (
    `/** ${sentences.credentials} */\npublic class ${name}(\n${lines.join("")}) {\n` +
    `    internal val all: Map<String, ${credential}?> = mapOf(\n${all.join("")}    )\n\n` +
    `    internal companion object {\n        val schemes: Map<String, ${uses.wire("Scheme")}> = mapOf(\n${schemes.join("")}        )\n    }\n}\n`
  );
}

/** Parts of a contract with the names of their parameters. */
function named<T>(
  things: readonly T[],
  nameOf: (thing: T) => string,
): { readonly thing: T; readonly member: string }[] {
  const scope = new NameScope();
  return things.map((thing) => ({
    thing,
    member: memberIdentifier(scope.claim(memberNameFrom(nameOf(thing)), nameOf(thing)), takenProperties, "Value"),
  }));
}

function schemeText(scheme: Credential, uses: Uses): string {
  if (scheme.kind === "scheme") return `${uses.wire("scheme")}(${quoted(scheme.scheme)})`;
  if (scheme.kind !== "key") return `${uses.wire(scheme.kind)}()`;
  const writers = { header: "keyInHeader", query: "keyInQuery", cookie: "keyInCookie" };
  return `${uses.wire(writers[scheme.in])}(${quoted(scheme.name)})`;
}

function printVariables(server: NonNullable<LoweredRest["connection"]["server"]>, name: string): string {
  const members = named([...server.variables], ([variable]) => variable);
  const lines = sortedBy(members, ({ member }) => member).map(({ thing: [, variable], member }) => {
    const words = {
      paragraphs: [
        variable.description,
        sentences.serverVariable(variable.default),
        variable.values && `One of: ${variable.values.join(", ")}.`,
      ],
    };
    return `${docComment(words, "    ")}    ${spelled(member)}: String = ${quoted(variable.default)},\n`;
  });
  const all = members.map(({ thing: [variable], member }) => `${quoted(variable)} to ${spelled(member)}`);
  return `${docComment({ paragraphs: [sentences.serverVariables(server.url)] })}public class ${name}(\n${lines.join("")}) {\n    internal val values: Map<String, String> = mapOf(${all.join(", ")})\n}\n`;
}

function printServers(urls: readonly string[], name: string): string {
  const members = named(urls, (url) => url);
  const lines = members.map(
    ({ thing, member }) =>
      `${docComment({ paragraphs: [`Replaces \`${thing}\`.`] }, "    ")}    ${spelled(member)}: String? = null,\n`,
  );
  const all = members.map(({ thing, member }) => `        ${quoted(thing)} to ${spelled(member)},\n`);
  return `/** ${sentences.ownServers} */\npublic class ${name}(\n${sortedBy(lines, (line) => line.trim()).join("")}) {\n    internal val all: Map<String, String?> = mapOf(\n${all.join("")}    )\n}\n`;
}

/** Prints the connection of a GraphQL contract. */
export function printGraphqlConnection(given: GraphqlContext): string {
  const { contract, uses, names, package: own } = inFile(given);
  const settings = uses.wire("ConnectionSettings");
  const graphql = uses.wire("GraphqlSettings");
  const name = names.contract.connection;
  const text =
    `${comment(sentences.connection(contract.plan.title))}public class ${name}(\n` +
    `    /** ${sentences.endpoint} */\n    baseUrl: String,\n` +
    `    /** ${sentences.bearer} */\n    bearer: ${orNull(uses.wire("Credential"))} = null,\n` +
    `    graphql: ${graphql} = ${graphql}(),\n    settings: ${settings} = ${settings}(),\n` +
    `) : ${uses.wire("GraphqlConnection")}(${quoted(contract.plan.name)}, baseUrl, settings, bearer, graphql)\n`;
  return fileText({ package: own, uses, parts: [text] });
}
