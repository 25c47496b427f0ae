import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { isStream, type RestContract, type RestOperation } from "../../src/core/contract/model.js";
import { contractNames } from "../../src/core/languages/typescript/identifiers.js";
import { restCallNames } from "../../src/core/languages/typescript/printRestCall.js";
import { planRest } from "../../src/core/sdk/planRest.js";
import type { RestCall, RestPlan } from "../../src/core/sdk/sdkPlan.js";
import { createStandin } from "../../src/standin/standin.js";
import type { RandomContract } from "../random/makeContract.js";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";
import { Samples } from "../random/samples.js";

type Call = (connection: unknown, args: object, options?: object) => unknown;

const argumentsEach = 20;
const answersEach = 5;
const credential = "credential";

/** An app that was released with the SDK of a contract, and goes on making its calls to servers of later ones. */
export class ReleasedApp {
  private constructor(
    private readonly plan: RestPlan,
    private readonly sdk: Record<string, Call>,
    /** Arguments that the old server takes, by call. */
    private readonly asked: Map<string, Record<string, unknown>[]>,
  ) {}

  /** @param files the SDK as it was generated, by path */
  static async released(
    contract: RestContract,
    document: Json,
    files: ReadonlyMap<string, string>,
  ): Promise<ReleasedApp> {
    const plan = planRest(contract, {});
    const app = new ReleasedApp(plan, await bundled(files, plan.name), new Map());
    const samples = new Samples(randomContract(document), 11);
    for (const call of plan.calls) {
      const found: Record<string, unknown>[] = [];
      for (let at = 0; at < argumentsEach; at++) {
        const args = argumentsOf(call, samples, at);
        if (args && (await app.refused(call, args, new Server(contract, document, at))) === undefined) found.push(args);
      }
      app.asked.set(call.name, found);
    }
    return app;
  }

  /** Calls that could not be tried, because no arguments were found that the old server takes. */
  get untried(): string[] {
    return [...this.asked].filter(([, args]) => args.length === 0).map(([name]) => name);
  }

  /** What no longer works with a server that speaks another contract: the first thing of each call. */
  async broken(contract: RestContract, document: Json, seed: number): Promise<string[]> {
    const found: string[] = [];
    const server = new Server(contract, document, seed);
    for (const call of this.plan.calls) {
      const asked = this.asked.get(call.name) ?? [];
      let wrong: string | undefined;
      for (let at = 0; at < answersEach && wrong === undefined; at++)
        for (const args of asked) wrong ??= await this.refused(call, args, server);
      if (wrong !== undefined) found.push(`${call.name}: ${wrong}`);
    }
    return found;
  }

  private async refused(call: RestCall, args: object, server: Server): Promise<string | undefined> {
    const names = contractNames(this.plan.name);
    const schemes = [...this.plan.authSchemes.keys()].map((scheme) => [scheme, credential]);
    const connection = this.sdk[names.connect]?.(
      {
        baseUrl: `http://play.test/${this.plan.name}`,
        auth: Object.fromEntries(schemes),
        fetch: (url: string, init: RequestInit) => server.answer(new Request(url, init)),
      },
      {},
    );
    try {
      const answer = await this.sdk[restCallNames(call).call]?.(connection, args);
      if (typeof answer === "object" && answer !== null && Symbol.asyncIterator in answer)
        for await (const item of answer as AsyncIterable<unknown>) void item;
      const isPromised = call.answers.length > 0 && call.answers.every(({ form }) => form !== "none");
      return answer === undefined && isPromised ? "nothing was answered" : undefined;
    } catch (error) {
      const { status } = error as { status?: unknown };
      // A failure that the server means is not what breaks an app, unless it cannot be read.
      if (server.isFailing && status !== "malformed") return undefined;
      // There is nothing to be made up for it.
      if (server.isSpeechless) return undefined;
      return `${String(error)} ${JSON.stringify((error as { body?: unknown }).body ?? "")}`.slice(0, 300);
    }
  }
}

/** A server that speaks a contract: it refuses what does not fit, and answers at random what may be answered. */
class Server {
  /** No answer was found that the contract allows. */
  isSpeechless = false;
  /** The last answer is a failure that the contract declares. */
  isFailing = false;
  private readonly standin: ReturnType<typeof createStandin>;
  private readonly samples: Samples;
  private readonly random: Randomness;

  constructor(
    private readonly contract: RestContract,
    document: Json,
    seed: number,
  ) {
    const here = {
      ...contract,
      servers: [],
      operations: contract.operations.map((each) => ({ ...each, servers: [] })),
    };
    this.standin = createStandin([{ contract: here, raw: document }], { seed, eventEveryMs: 1 });
    this.samples = new Samples(randomContract(document), seed, "answer");
    this.random = new Randomness(seed);
  }

  async answer(request: Request): Promise<Response> {
    this.isSpeechless = false;
    this.isFailing = false;
    const path = new URL(request.url).pathname.slice(this.contract.name.length + 1);
    const operation = this.operationAt(request.method, path);
    const judged = await this.standin.fetch(request);
    if (!operation || (judged.status >= 400 && !(await isOverlooked(judged)))) return judged;
    const wanted = this.random.chance(0.2) ? /^[45]\d\d$/ : /^2\d\d$/;
    const declared = operation.responses.filter(({ status }) => wanted.test(status));
    if (declared.length === 0) return judged.status >= 400 ? new Response(null, { status: 204 }) : judged;
    const response = this.random.pick(declared);
    this.isFailing = !response.status.startsWith("2");
    const status = Number(response.status);
    if (response.contents.length === 0) return new Response(null, { status });
    const content = this.random.pick(response.contents);
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

  private operationAt(method: string, path: string): RestOperation | undefined {
    const fits = (operation: RestOperation): boolean => {
      const pattern = operation.path.replace(/[.+?^$()|[\]\\]/g, "\\$&").replace(/\{[^{}]+\}/g, "[^/]+");
      return operation.method === method.toLowerCase() && new RegExp(`^${pattern}$`).test(path);
    };
    const found = this.contract.operations.filter(fits);
    return found.find((operation) => !operation.path.includes("{")) ?? found[0];
  }
}

/** What the stand-in is strict about, and a server overlooks: parameters and bodies that it does not know. */
async function isOverlooked(judged: Response): Promise<boolean> {
  const { errors } = (await judged.clone().json()) as { errors?: { message: string }[] };
  return (
    errors !== undefined && errors.every(({ message }) => /not a parameter of|this operation takes none/.test(message))
  );
}

function randomContract(document: Json): RandomContract {
  return { document, version: "3.1.0", seed: 1, occurred: new Map() } as unknown as RandomContract;
}

/** Arguments that the contract allows: all of them, the needed ones alone, or some. */
function argumentsOf(
  { arguments: planned }: RestCall,
  samples: Samples,
  at: number,
): Record<string, unknown> | undefined {
  const random = new Randomness(at + 5);
  const args: Record<string, unknown> = {};
  for (const { name, source, required } of planned) {
    if (!required && (at === 1 || (at > 1 && random.chance(0.4)))) continue;
    const isForm = source.kind === "body" && source.content.form === "multipart";
    const { pointer } = source.kind === "parameter" ? source.parameter.schema : source.content.schema;
    const value = samples.allowed(pointer, isForm);
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
