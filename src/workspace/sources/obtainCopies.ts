import { existsSync } from "node:fs";
import { join } from "node:path";
import { isUrl } from "../../core/rest/documentNames.js";
import { printedBy } from "../generate/printedBy.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { copyPath, readCopy } from "./copies.js";
import { dataMember, isData, listMember, parseData, textMember } from "../../core/text/parseData.js";
import { haltOrAsync, mergedHalt } from "../project/allOrHalt.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import { credentialOf, hideSecrets } from "../../core/text/secrets.js";
import { fetchText, type Fetched, type FetchOptions, type Validators } from "./fetchText.js";
import { originsWith } from "../configuration/origins.js";
import { fromEnvironment } from "../configuration/fromEnvironment.js";
import { exitCodes, Halt } from "../project/halt.js";
import { displayPath, type Project } from "../project/project.js";
import { sourceList } from "./sources.js";
import { performWriting } from "../files/writing.js";

const timeoutMs = 30_000;

/** The result of fetching copies. */
export interface Obtained {
  /** Warnings about copies that could not be replaced. */
  readonly problems: readonly Problem[];
  /** Contracts that are not available and have no copy. */
  readonly lacking: ReadonlyMap<string, Halt>;
}

/**
 * Fetches the copies of all contracts from a URL or a command.
 *
 * @param fresh also replace existing copies
 */
export async function obtainCopies(project: Project, contracts: Iterable<string>, fresh: boolean): Promise<Obtained> {
  const problems: Problem[] = [];
  const lacking = new Map<string, Halt>();
  for (const contract of contracts) {
    const settings = project.configuration.contracts[contract];
    if (!settings) continue;
    const halts: Halt[] = [];
    for (const source of remoteSources(settings)) {
      const known = readCopy(project, contract, source);
      if (known && !fresh) continue;
      const found = await haltOrAsync(async () =>
        settle(project, contract, { failure: await obtain(project, contract, source), hasCopy: known !== undefined }),
      );
      if (found instanceof Halt) halts.push(found);
      else problems.push(...found);
    }
    if (halts.length > 0) lacking.set(contract, mergedHalt(halts));
  }
  return { problems, lacking };
}

/** Returns the URLs of a contract; undefined stands for a command. */
export function remoteSources(settings: ContractConfiguration): (string | undefined)[] {
  const { from } = settings;
  return typeof from === "object" && "run" in from ? [undefined] : sourceList(settings).filter(isUrl);
}

/** Without a copy, a failure is an error; with one, it is a warning. */
function settle(
  project: Project,
  contract: string,
  { failure, hasCopy }: { readonly failure: Problem | undefined; readonly hasCopy: boolean },
): Problem[] {
  if (!failure) return [];
  const place = { document: project.configName, pointer: `/contracts/${contract}/from` };
  if (!hasCopy)
    throw new Halt(
      [{ ...failure, places: [place] }],
      exitCodes.unreadable,
      new Map([[project.configName, project.configText]]),
    );
  return [{ ...failure, level: "warning", places: [place], why: "Rhema uses the existing copy instead." }];
}

/**
 * Fetches one document of a contract and saves its copy.
 *
 * @param address the URL, or undefined for a command
 * @returns the problem if it is not available
 */
export async function obtain(
  project: Project,
  contract: string,
  address: string | undefined,
): Promise<Problem | undefined> {
  const fetched = await fetchCopy(project, contract, { address, known: undefined });
  if ("problem" in fetched) return fetched.problem;
  if ("text" in fetched) saveCopy(project, contract, { address, fetchedCopy: fetched });
  return undefined;
}

/** A text to store, and its version according to the server. */
export interface FetchedCopy {
  readonly text: string;
  readonly validators?: Validators | undefined;
}

export type CopyOutcome = FetchedCopy | { readonly isSame: true } | { readonly problem: Problem };

/** Fetches one document of a contract, or runs the command that prints it. Saves nothing. */
export async function fetchCopy(
  project: Project,
  contract: string,
  { address, known }: { readonly address: string | undefined; readonly known: Validators | undefined },
): Promise<CopyOutcome> {
  const settings = project.configuration.contracts[contract] ?? { from: [] };
  if (address === undefined) return runCommand(project, contract, runOf(settings));
  const expanded = expandAddress(project, address, contract);
  const headers = Object.fromEntries(
    Object.entries(settings.headers ?? {}).map(([name, value]) => [name, expand(project, value, contract)]),
  );
  if (!URL.canParse(expanded) || !/^https?:/i.test(expanded)) {
    const message = `\`${address}\` is not a URL that can be fetched.`;
    return { problem: problem("contract.fetch", message, { hint: "Use http: or https:." }) };
  }
  project.secrets.learnHeaders(Object.entries(headers));
  project.secrets.learnAddress(new URL(expanded));
  const owner = sourceList(settings).find((source) => source === address || sameOrigin(source, address));
  const named = owner === undefined ? "" : expandAddress(project, owner, contract);
  const own = owner === undefined ? {} : { ...(URL.canParse(named) ? credentialOf(new URL(named)) : {}), ...headers };
  const options = { headers: own, hosts: settings.hosts ?? [], timeoutMs: waitMs(project), known };
  const isSource = sourceList(settings).includes(address);
  const fetched = await (isSource
    ? fetchSource(expanded, address, { options, settings })
    : fetchText(expanded, address, options));
  // Origin and path only: the rest of an address may contain a secret.
  const { origin, pathname } = new URL(expanded);
  project.trace(() => `fetched ${origin}${pathname} for the contract ${contract}: ${howItWent(fetched)}`);
  if (!("text" in fetched)) return fetched;
  return { text: withoutSecrets(await asSaved(fetched.text)), validators: fetched.validators };
}

function howItWent(fetched: Fetched): string {
  if ("isSame" in fetched) return "the same as before";
  return "text" in fetched ? `${String(fetched.text.length)} characters` : "failed";
}

function runOf({ from }: ContractConfiguration): string {
  return typeof from === "object" && "run" in from ? from.run : "";
}

/**
 * An OpenAPI document is fetched and a GraphQL endpoint introspected. The address's name, the configuration of the
 * contract, and finally the server's response show which one it is.
 */
async function fetchSource(
  address: string,
  shown: string,
  { options, settings }: { readonly options: FetchOptions; readonly settings: ContractConfiguration },
): Promise<Fetched> {
  const { introspect } = await import("./introspect.js");
  const { pathname } = new URL(address);
  const isDocument = /\.(json|ya?ml|graphqls?|gql|sdl|txt)$/i.test(pathname);
  const isGraphql =
    settings.queries !== undefined || settings.scalars !== undefined || /(?:graphql|gql)\/?$/i.test(pathname);
  if (!isDocument && isGraphql) return introspect(address, shown, options);
  const fetched = await fetchText(address, shown, options);
  if ("isSame" in fetched) return fetched;
  const isNoDescription =
    "problem" in fetched ? [200, 400, 405, 406, 415].includes(fetched.status ?? 0) : isErrorAnswer(fetched.text);
  if (isDocument || !isNoDescription) return fetched;
  const asked = await introspect(address, shown, options);
  return "problem" in asked && "problem" in fetched ? fetched : asked;
}

/** The response of a GraphQL server to a request without a query. */
function isErrorAnswer(text: string): boolean {
  return /^\s*\{\s*"(?:errors|data)"\s*:/.test(text) && !text.includes('"__schema"');
}

/**
 * An introspection result is stored as schema text, which people can read and compare; JSON is stored in lines, so that
 * a changed value is a changed line.
 */
async function asSaved(text: string): Promise<string> {
  if (!/^\s*\{/.test(text)) return text;
  if (!text.includes('"__schema"')) return inLines(text);
  const { introspectedSchema, introspectionText } = await import("../../core/graphql/introspectionText.js");
  const parsed = parseData(text);
  const schema = parsed.ok ? introspectedSchema(parsed.data) : undefined;
  return schema ? introspectionText(schema) : text;
}

async function inLines(text: string): Promise<string> {
  const { format } = await import("jsonc-parser");
  const edits = format(text, undefined, { insertSpaces: true, tabSize: 2, eol: "\n" });
  // The library makes one edit after the other, each into a new text: that takes minutes, and making all at once takes
  // no time.
  const pieces: string[] = [];
  let from = 0;
  for (const { offset, length, content } of edits.sort((a, b) => a.offset - b.offset)) {
    pieces.push(text.slice(from, offset), content);
    from = offset + length;
  }
  const formatted = pieces.join("") + text.slice(from);
  return formatted.endsWith("\n") ? formatted : `${formatted}\n`;
}

/**
 * A text without the credentials in it. The default of a server's variable is a credential if the variable comes before
 * the host in the address (OpenAPI 3.1, section 4.8.6), which only the data shows. The same word in other places stays.
 */
function withoutSecrets(text: string): string {
  let safe = hideSecrets(text);
  if (!["@", "servers", "variables"].every((part) => text.includes(part))) return safe;
  const parsed = parseData(text);
  if (!parsed.ok || !isData(parsed.data)) return safe;
  for (const server of (listMember(parsed.data, "servers") ?? []).filter(isData)) {
    const [, before = ""] = /:\/\/([^\s/?#]*)@/.exec(textMember(server, "url") ?? "") ?? [];
    for (const [name, variable] of Object.entries(dataMember(server, "variables") ?? {})) {
      const said = isData(variable) ? [variable["default"], ...(listMember(variable, "enum") ?? [])] : [];
      for (const value of said.filter((each) => typeof each === "string")) {
        const [user] = /^[^/?#]*@/.exec(value) ?? [];
        if (user !== undefined) safe = safe.replaceAll(user, "(hidden)@");
        else if (before.includes(`{${name}}`)) safe = withoutDefault(safe, value);
      }
    }
  }
  return safe;
}

/** A text in which a value is no longer a default. */
function withoutDefault(text: string, value: string): string {
  const literal = value.replace(/[\\^$.*+?()[\]{}|/]/g, "\\$&");
  return text.replace(
    new RegExp(`(\\bdefault["']?[ \\t]*:[ \\t]*["']?)${literal}(?=["']?[ \\t]*(?:[,}\\r\\n]|$))`, "g"),
    "$1(hidden)",
  );
}

/** The time limit for a server. RHEMA_WAIT_MS sets another one, for servers that start slowly. */
function waitMs({ environment }: Project): number {
  const wanted = Number(environment["RHEMA_WAIT_MS"]);
  return Number.isInteger(wanted) && wanted > 0 ? wanted : timeoutMs;
}

function sameOrigin(a: string, b: string): boolean {
  return URL.canParse(a) && URL.canParse(b) && new URL(a).origin === new URL(b).origin;
}

async function runCommand(project: Project, contract: string, command: string): Promise<CopyOutcome> {
  const printed = await printedBy(project, command, waitMs(project) * 4);
  if ("failure" in printed) return { problem: failedCommand(contract, printed.failure) };
  project.trace(() => `ran the command of the contract ${contract}: ${String(printed.text.length)} characters`);
  return { text: withoutSecrets(await asSaved(printed.text)) };
}

function failedCommand(contract: string, what: string): Problem {
  return problem("contract.fetch", `The command that prints the contract \`${contract}\` ${what}.`, {
    hint: "Run it in the project's folder to see what is wrong.",
  });
}

function expand({ environment }: Project, text: string, contract: string): string {
  return fromEnvironment(text, environment, `The contract \`${contract}\``);
}

/** An address with values of the environment. In user and password, no character counts as a part of the address. */
function expandAddress(project: Project, address: string, contract: string): string {
  const [, scheme = "", userInfo = "", rest = address] = /^(https?:\/\/)([^/?#]*@)(.*)$/is.exec(address) ?? [];
  const pair = userInfo.replace(/\$\{\w+\}/g, (name) => encodeURIComponent(expand(project, name, contract)));
  return scheme + pair + expand(project, rest, contract);
}

/** Saves a copy, and its version according to the server: both or neither, however the process ends. */
export function saveCopy(
  project: Project,
  contract: string,
  {
    address,
    fetchedCopy: { text, validators = {} },
  }: { readonly address: string | undefined; readonly fetchedCopy: FetchedCopy },
): void {
  const path = copyPath(project, contract, { address, text });
  const known = readCopy(project, contract, address);
  const saved = text.endsWith("\n") ? text : `${text}\n`;
  const write = new Map([[displayPath(project, path), saved]]);
  const remove: string[] = [];
  if (address !== undefined) {
    const origins = originsWith(project, contract, address, { ...validators, text: saved });
    const shown = displayPath(project, origins.path);
    if (origins.text !== undefined) write.set(shown, origins.text);
    else if (existsSync(origins.path)) remove.push(shown);
  }
  // A copy with another extension would be found first.
  if (known && join(project.root, known.document) !== path) remove.push(known.document);
  performWriting(project, { write, remove });
}
