import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { isStream, type RestContract, type RestOperation } from "../src/core/contract/model.js";
import { argumentKey, typescriptNames } from "../src/core/languages/typescript/names/names.js";
import { planRest, type RestSettings } from "../src/core/sdk/planRest.js";
import { serverUrl } from "../src/core/sdk/lower/serverAddress.js";
import type { RestCall, RestPlan } from "../src/core/sdk/sdkPlan.js";
import { contractValidator, type ContractValidator } from "../src/standin/samples/ajvForContract.js";
import { checkRequest } from "../src/standin/rest/checkRequest.js";
import { operationMatcher, type MatchedOperation } from "../src/standin/rest/matchOperation.js";
import type { RandomContract } from "../test/proof/random/makeContract.js";
import type { Json } from "../test/proof/random/makeSchema.js";
import { Randomness } from "../test/proof/random/randomness.js";
import { Samples, schemaAt } from "../test/proof/random/samples.js";

type Call = (connection: unknown, args: object, options?: object) => unknown;

const argumentsEach = 20;
const answersOfAll = 120;
const credential = "credential";
/** The address that the app supplies. Operations with servers of their own are not served there. */
const supplied = "http://play.test/shop";

/** A call in source. */
export interface WrittenCall {
  /** Its name in the SDK. */
  readonly name: string;
  readonly args: unknown;
}

/** An app that was released with the SDK of a contract, and calls servers with later contracts. */
export class ReleasedApp {
  /** Arguments that the old server accepts, by call. */
  private readonly asked = new Map<string, Record<string, unknown>[]>();
  private readonly samples: Samples;
  /** The server that it was made for. */
  private readonly old: Server;

  private constructor(
    contract: RestContract,
    document: Json,
    private readonly plan: RestPlan,
    private readonly sdk: Record<string, Call>,
  ) {
    this.samples = new Samples(randomContract(document), 11);
    this.old = new Server(contract, document, 11);
  }

  /** Releases an app. @param files the files of the SDK, by path */
  static async released(
    contract: RestContract,
    document: Json,
    files: ReadonlyMap<string, string>,
    rest: Pick<RestSettings, "pages">,
  ): Promise<ReleasedApp> {
    const plan = planRest(contract, rest);
    const app = new ReleasedApp(contract, document, plan, await bundled(files, plan.name));
    for (const call of plan.calls) {
      const drawn = Array.from({ length: argumentsEach }, (_, at) => argumentsOf(call, app.samples, at));
      app.asked.set(call.name, await app.taken(call, drawn));
    }
    return app;
  }

  /** Some of the arguments that the old server accepts. */
  private async taken(
    call: RestCall,
    drawn: readonly (Record<string, unknown> | undefined)[],
  ): Promise<Record<string, unknown>[]> {
    const found: Record<string, unknown>[] = [];
    for (const args of drawn) if (args && (await this.refused(call, args, this.old)) === undefined) found.push(args);
    return found;
  }

  /**
   * Returns arguments like those in the source that the old server accepts, by call.
   *
   * @returns undefined if it accepts none for a call in the source: the effect on the app is then unknown
   */
  async askedIn(
    calls: readonly WrittenCall[],
  ): Promise<ReadonlyMap<string, readonly Record<string, unknown>[]> | undefined> {
    const names = typescriptNames(this.plan);
    const asked = new Map<string, Record<string, unknown>[]>();
    for (const call of this.plan.calls) {
      const taken: Record<string, unknown>[] = [];
      for (const { args } of calls.filter(({ name }) => isOf(name, names.rest(call)))) {
        const drawn = Array.from({ length: argumentsEach * 3 }, (_, at) =>
          alike(argumentsOf(call, this.samples, at) ?? {}, args),
        );
        const some = await this.taken(call, [args, ...drawn] as Record<string, unknown>[]);
        if (some.length === 0) return undefined;
        taken.push(...some.slice(0, argumentsEach));
      }
      if (taken.length > 0) asked.set(call.name, taken);
    }
    return asked;
  }

  /** Returns the calls that could not be tried, because the old server accepted no arguments. */
  get untried(): string[] {
    return [...this.asked].filter(([, args]) => args.length === 0).map(([name]) => name);
  }

  /**
   * Returns what no longer works with a server of another contract: the first error of each call.
   *
   * @param asked the app's arguments; all if absent
   */
  async broken(
    contract: RestContract,
    document: Json,
    seed: number,
    asked: ReadonlyMap<string, readonly Record<string, unknown>[]> = this.asked,
  ): Promise<string[]> {
    const found: string[] = [];
    const server = new Server(contract, document, seed);
    // An app that makes few calls gets more responses to each.
    const answersEach = Math.ceil(answersOfAll / Math.max(1, asked.size));
    for (const call of this.plan.calls) {
      let wrong: string | undefined;
      for (let at = 0; at < answersEach && wrong === undefined; at++)
        for (const args of asked.get(call.name) ?? []) wrong ??= await this.refused(call, args, server);
      if (wrong !== undefined) found.push(`${call.name}: ${wrong}`);
    }
    return found;
  }

  private async refused(call: RestCall, args: object, server: Server): Promise<string | undefined> {
    const names = typescriptNames(this.plan);
    const schemes = [...this.plan.authSchemes.keys()].map((scheme): [string, string] => [scheme, credential]);
    const connection = this.sdk[names.contract.connect]?.(
      {
        baseUrl: supplied,
        auth: Object.fromEntries(schemes),
        fetch: (url: string, init: RequestInit) => server.answer(new Request(url, init)),
      },
      {},
    );
    try {
      const answer = await this.sdk[names.rest(call).call]?.(connection, args);
      if (typeof answer === "object" && answer !== null && Symbol.asyncIterator in answer)
        await readAll(answer as AsyncIterable<unknown>);
      const isPromised = call.answers.length > 0 && call.answers.every(({ form }) => form !== "none");
      return answer === undefined && isPromised ? "nothing was answered" : undefined;
    } catch (error) {
      const { status } = error as { status?: unknown };
      // An intended failure of the server does not break an app, unless it cannot be read.
      if (server.isFailing && status !== "malformed") return undefined;
      // No response can be made up for it.
      if (server.isSpeechless) return undefined;
      return `${String(error)} ${JSON.stringify((error as { body?: unknown }).body ?? "")}`.slice(0, 300);
    }
  }
}

/** Whether source calls an operation by a name: as a whole, or page by page. */
function isOf(name: string, { call, items }: { readonly call: string; readonly items: string }): boolean {
  return name === call || name === items;
}

/** A random value with only the parts that source gives. A value that source writes as any is random. */
function alike(drawn: unknown, written: unknown): unknown {
  if (Array.isArray(written)) {
    const items = written as unknown[];
    if (items.length === 0 || !Array.isArray(drawn)) return written;
    return drawn.map((each, at) => alike(each, items[at % items.length]));
  }
  if (isPlainObject(written)) {
    const from = isPlainObject(drawn) ? drawn : {};
    return Object.fromEntries(
      Object.entries(written).map(([key, value]) => [key, key in from ? alike(from[key], value) : value]),
    );
  }
  const isAny = written === "text" || written === "anything" || written === 1;
  return isAny && typeof drawn === typeof written ? drawn : written;
}

function isPlainObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && Object.getPrototypeOf(value) === Object.prototype;
}

async function readAll(items: AsyncIterable<unknown>): Promise<void> {
  const each = items[Symbol.asyncIterator]();
  while ((await each.next()).done !== true);
}

/** A server for a contract: it refuses invalid requests, and responds with random valid responses. */
class Server {
  /** Whether no response was found that the contract allows. */
  isSpeechless = false;
  /** Whether the last response is a declared failure. */
  isFailing = false;
  private readonly match: ReturnType<typeof operationMatcher>;
  private readonly validator: ContractValidator;
  private readonly samples: Samples;
  private readonly random: Randomness;

  constructor(
    private readonly contract: RestContract,
    private readonly document: Json,
    seed: number,
  ) {
    this.match = operationMatcher(contract.operations);
    this.validator = contractValidator(document, contract.dialect, "request");
    this.samples = new Samples(randomContract(document), seed, "answer");
    this.random = new Randomness(seed);
  }

  async answer(request: Request): Promise<Response> {
    this.isSpeechless = false;
    this.isFailing = false;
    const found = this.found(request);
    if (found === undefined) return new Response(`there is no ${request.method} ${request.url}`, { status: 404 });
    const refusal = await this.refusal(request, found);
    if (refusal !== undefined) return new Response(refusal, { status: 400 });
    const { operation } = found;
    const wanted = this.random.chance(0.3) ? /^[45]\d\d$/ : /^2\d\d$/;
    const among = (pattern: RegExp) => operation.responses.filter(({ status }) => pattern.test(status));
    const declared = among(wanted).length > 0 ? among(wanted) : among(/^2\d\d$/);
    if (declared.length === 0)
      return new Response("{}", { status: 200, headers: { "content-type": "application/json" } });
    const response = this.random.pick(declared);
    this.isFailing = !response.status.startsWith("2");
    const status = Number(response.status);
    if (response.contents.length === 0) return new Response(null, { status });
    const accepted = request.headers.get("accept") ?? "";
    // Servers report errors in their own format, whichever was requested.
    const asked = response.contents.filter(({ mediaType }) => this.isFailing || accepted.includes(mediaType));
    if (asked.length === 0) return new Response("", { status: 406 });
    const content = this.random.pick(asked);
    const value = (): unknown => this.samples.allowed(content.schema.pointer, false);
    const headers = { "content-type": content.mediaType };
    if (isStream(content.form)) {
      const items = [value(), value()].filter((item) => item !== undefined);
      return new Response(items.map((item) => `${JSON.stringify(item)}\n`).join(""), { status, headers });
    }
    if (content.form !== "json") return new Response("text", { status, headers });
    const made = value();
    if (made === undefined) {
      this.isSpeechless = true;
      return new Response("", { status: 500 });
    }
    return new Response(JSON.stringify(made), { status, headers });
  }

  /** The stand-in server accepts every form. Its required parts are checked here. */
  private async lacksParts(request: Request, operation: RestOperation): Promise<boolean> {
    const pointer = operation.body?.contents.find(({ form }) => form === "multipart")?.schema.pointer;
    const schema = pointer === undefined ? undefined : (schemaAt(pointer, this.document) as Json | undefined);
    const parts = new Set([...(await request.text()).matchAll(/; name="([^"]*)"/g)].map(([, name]) => name));
    return ((schema?.["required"] ?? []) as string[]).some((name) => !parts.has(name));
  }

  /** The operation of a request. An operation with a server of its own is only served at that address. */
  private found(request: Request): MatchedOperation | undefined {
    const servedAt = ({ servers: [own] }: RestOperation): string => (own ? serverUrl(own) : supplied);
    for (const address of new Set(this.contract.operations.map(servedAt))) {
      if (!request.url.startsWith(`${address}/`)) continue;
      const found = this.match(request.method, new URL(request.url.slice(address.length), supplied).pathname);
      if (found.kind === "match" && servedAt(found.match.operation) === address) return found.match;
    }
    return undefined;
  }

  /** Why a request is refused. */
  private async refusal(request: Request, found: MatchedOperation): Promise<string | undefined> {
    const mediaType = request.headers.get("content-type") ?? undefined;
    if (mediaType?.startsWith("multipart/") === true && (await this.lacksParts(request.clone(), found.operation)))
      return "the form lacks a part";
    const asked = {
      query: new URL(request.url).search.slice(1),
      header: (name: string) => request.headers.get(name) ?? undefined,
      mediaType,
      body: await request.text(),
    };
    const context = { types: this.contract.types, credentials: new Set<string>() };
    const { misfits } = checkRequest(found, asked, { validator: this.validator, requestContext: context });
    // The stand-in server is strict about parts that a real server ignores: unknown parameters and bodies.
    const refused = misfits.filter(({ message }) => !/not a parameter of|this operation has none/.test(message));
    return refused.length > 0 ? refused.map(({ name, message }) => `${name} ${message}`).join("; ") : undefined;
  }
}

function randomContract(document: Json): RandomContract {
  return { document, version: "3.1.0", seed: 1, occurred: new Map() } as unknown as RandomContract;
}

/** Arguments that the contract allows: all of them, the required ones alone, or some. */
function argumentsOf(
  { arguments: planned, answerChoices }: RestCall,
  samples: Samples,
  at: number,
): Record<string, unknown> | undefined {
  const random = new Randomness(at + 5);
  const args: Record<string, unknown> = {};
  // Every third attempt uses another media type than the default one, if there is a choice.
  const isOther = at % 3 === 2;
  const choice = answerChoices.at(-1);
  if (isOther && choice) args["answerType"] = choice.mediaType;
  for (const argument of planned) {
    const { source, required } = argument;
    const name = argumentKey(argument);
    const other = source.kind === "body" && isOther ? source.others[0] : undefined;
    if (other) {
      args["bodyType"] = other.content.mediaType;
      args[name] = other.content.form === "text" ? "text" : samples.allowed(other.content.schema.pointer, false);
      continue;
    }
    if (!required && (at === 1 || (at > 1 && random.chance(0.4)))) continue;
    const isForm = source.kind === "body" && source.content.form === "multipart";
    const { pointer } = source.kind === "parameter" ? source.parameter.schema : source.content.schema;
    const value = samples.allowed(pointer, isForm);
    // An empty segment of a path is another path.
    if (value === "" && source.kind === "parameter" && source.parameter.in === "path") return undefined;
    if (value === undefined && required) return undefined;
    if (value !== undefined) args[name] = value;
  }
  return args;
}

async function bundled(files: ReadonlyMap<string, string>, contract: string): Promise<Record<string, Call>> {
  const folder = mkdtempSync(join(tmpdir(), "rhema-truth-"));
  for (const [path, text] of files) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), text);
  }
  const outfile = join(folder, "app.mjs");
  const entry = join(folder, `sdk/${contract}/index.ts`);
  await build({ entryPoints: [entry], outfile, bundle: true, format: "esm", target: "node20", logLevel: "error" });
  try {
    return (await import(pathToFileURL(outfile).href)) as Record<string, Call>;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
