import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { buildSync } from "esbuild";
import { isStream, type Parameter, type RestContract } from "../../../src/core/contract/model.js";
import { argumentKey, typescriptNames } from "../../../src/core/languages/typescript/names/names.js";
import { printTypescriptSdk } from "../../support/typescriptSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { RestCall, RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { spreadNames } from "../../../src/standin/rest/readParameter.js";
import { createStandin } from "../../../src/standin/standin.js";
import type { PlayedContract } from "../../../src/standin/playedContract.js";
import { Judge } from "./judge.js";
import { makeContract, type RandomContract } from "./makeContract.js";
import { Samples } from "./samples.js";

export interface RoundTrips {
  readonly calls: number;
  /** Calls with a valid response, checked with the raw contract. */
  answered: number;
  /** Calls for which no valid arguments or no response were found, or whose path was empty. */
  unasked: number;
  readonly failures: string[];
}

type Call = (connection: unknown, args: object, options?: object) => unknown;

/** Makes every call of random contracts through their SDKs to the stand-in server, in this process. */
export async function roundTrips(
  firstSeed: number,
  contracts: number,
  runtime: ReadonlyMap<string, string>,
): Promise<RoundTrips> {
  const made = Array.from({ length: contracts }, (_, index) => read(firstSeed + index));
  const app = createStandin(
    made.map(({ played }) => played),
    { seed: 7, eventEveryMs: 1 },
  );
  const plans = made.map(({ plan }) => plan);
  const sdk = printTypescriptSdk(
    { name: "app", contracts: plans },
    { runtime, scalars: new Map(), settings: { verify: "answers" } },
  );
  const modules = await bundled(sdk, plans);
  const result: RoundTrips = {
    calls: plans.reduce((sum, plan) => sum + plan.calls.length, 0),
    answered: 0,
    unasked: 0,
    failures: [],
  };
  for (const { plan, random, played } of made) {
    const names = typescriptNames(plan);
    const own = modules[plan.name] ?? {};
    let sent = "";
    const connection = own[names.contract.connect]?.(
      {
        baseUrl: `http://play.test/${plan.name}`,
        auth: Object.fromEntries([...plan.authSchemes.keys()].map((scheme) => [scheme, "credential"])),
        fetch: (url: string, init: RequestInit) => {
          sent = `${init.method ?? ""} ${url} ${typeof init.body === "string" ? init.body : ""}`;
          return app.fetch(new Request(url, init));
        },
      },
      {},
    );
    const samples = new Samples(random, random.seed + 2);
    const answers = new Samples(random, random.seed + 3, "answer");
    const judge = new Judge(random.document, random.version, "answer");
    for (const call of plan.calls) {
      const args = argumentsOf(call, samples, random, played.contract.types);
      if (!args || answerPointers(call).some((pointer) => answers.allowed(pointer, false) === undefined)) {
        result.unasked++;
        continue;
      }
      let status = 0;
      try {
        const perform = own[names.rest(call).call]!;
        const options = { onAnswer: (answer: { status: number }) => (status = answer.status) };
        const answer = await settledAnswer(perform(connection, args, options));
        const wrong = judged(call, status, answer, judge);
        if (wrong === undefined) result.answered++;
        else result.failures.push(`${plan.name} ${call.name}: ${wrong}\n    ${sent}`);
      } catch (error) {
        // An empty segment of a path is another path, and so is one of dots. Headers contain only Latin-1.
        if (
          /would change the path|contains half a character|is not valid in a header/.test(String(error)) ||
          /\/[.;]?(\?| )/.test(sent.replace(/^\S+ https?:\/\/[^/]+/, ""))
        ) {
          result.unasked++;
          continue;
        }
        result.failures.push(
          `${plan.name} ${call.name}: ${String(error)} ${JSON.stringify((error as { body?: unknown }).body ?? "")}\n    ${sent}`.slice(
            0,
            1200,
          ),
        );
      }
    }
  }
  return result;
}

function read(seed: number): { random: RandomContract; plan: RestPlan; played: PlayedContract } {
  const random = makeContract(seed);
  const name = `c${String(seed)}`;
  const { contract, raw } = readContract(name, [{ document: "api.json", text: JSON.stringify(random.document) }]);
  if (contract?.protocol !== "rest") throw new Error(`seed ${String(seed)} cannot be read`);
  // Servers of single calls would bypass the stand-in server.
  const here: RestContract = {
    ...contract,
    servers: [],
    operations: contract.operations.map((operation) => ({ ...operation, servers: [] })),
  };
  return { random, plan: planRest(here, {}), played: { contract: here, raw } };
}

async function bundled(
  sdk: ReadonlyMap<string, string>,
  plans: readonly RestPlan[],
): Promise<Record<string, Record<string, Call>>> {
  const folder = mkdtempSync(join(tmpdir(), "rhema-trips-"));
  for (const [path, text] of sdk) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), text);
  }
  const entry = plans.map(({ name }) => `export * as ${name} from "./${name}/index.js";`).join("\n");
  writeFileSync(join(folder, "all.ts"), entry);
  const outfile = join(folder, "all.mjs");
  buildSync({
    entryPoints: [join(folder, "all.ts")],
    outfile,
    bundle: true,
    format: "esm",
    target: "node20",
    logLevel: "error",
  });
  try {
    return (await import(pathToFileURL(outfile).href)) as Record<string, Record<string, Call>>;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The response of a call, or all of its items. */
async function settledAnswer(answer: unknown): Promise<unknown> {
  if (typeof answer !== "object" || answer === null || !(Symbol.asyncIterator in answer)) return answer;
  const items: unknown[] = [];
  for await (const item of answer as AsyncIterable<unknown>) items.push(item);
  return items;
}

/** Valid arguments, checked by Ajv; undefined if none were found. */
function argumentsOf(
  call: RestCall,
  samples: Samples,
  { version }: RandomContract,
  types: RestContract["types"],
): Record<string, unknown> | undefined {
  // Records that are spread over the query together cannot be distinguished if they share names.
  const spread = call.arguments.filter(
    ({ source }) =>
      source.kind === "parameter" &&
      source.parameter.in === "query" &&
      spreadNames(source.parameter, types)?.size !== 0,
  );
  if (spread.length > 1) return undefined;
  const args: Record<string, unknown> = {};
  for (const argument of call.arguments) {
    const { source, required } = argument;
    const node = source.kind === "parameter" ? source.parameter : source.content;
    const form = source.kind === "body" ? source.content.form : "json";
    // Form parameters of 2.0 have no common schema.
    if (version === "2.0" && source.kind === "body" && (form === "multipart" || form === "urlencoded")) {
      if (required) return undefined;
      continue;
    }
    const value =
      form === "bytes"
        ? new Blob(["bytes"])
        : form === "text"
          ? "text"
          : samples.allowed(node.schema.pointer, form === "multipart");
    if (value === undefined) {
      if (required) return undefined;
      continue;
    }
    if (source.kind === "parameter" && isAmbiguous(source.parameter, value)) return undefined;
    args[argumentKey(argument)] = isStream(form) ? [value] : value;
  }
  return args;
}

/**
 * Whether parts of a value contain their separator: headers cannot escape it, and a space is sent like any other
 * character.
 */
function isAmbiguous({ in: location, style }: Parameter, value: unknown): boolean {
  if (typeof value !== "object" || value === null || style === "json") return false;
  const separator =
    location === "header" ? "," : { spaceDelimited: " ", pipeDelimited: "|", label: "." }[style as string];
  if (separator === undefined) return false;
  const parts = Array.isArray(value) ? (value as unknown[]) : Object.entries(value).flat();
  return parts.some((part) => (typeof part === "string" ? part : JSON.stringify(part)).includes(separator));
}

/** The places of the schemas in a call's responses. */
function answerPointers(call: RestCall): string[] {
  const declared = call.operation.responses.filter(({ status }) =>
    call.answers.some((answer) => answer.status === status),
  );
  return declared.flatMap(({ contents }) =>
    contents.flatMap(({ form, schema }) => (form === "json" ? [schema.pointer] : [])),
  );
}

/** The errors of a response according to the raw contract; undefined if there are none. */
function judged(call: RestCall, status: number, answer: unknown, judge: Judge): string | undefined {
  const response = call.answers.find((each) => each.status === String(status)) ?? call.answers[0];
  if (response?.form !== "json") return undefined;
  const declared = call.operation.responses.find((each) => each.status === response.status);
  const pointer = declared?.contents.find((content) => content.form === "json")?.schema.pointer;
  if (pointer === undefined) return undefined;
  if (judge.judge(pointer, answer) !== "does not fit") return undefined;
  return `answered ${JSON.stringify(answer)}, which ${pointer} does not allow`;
}
