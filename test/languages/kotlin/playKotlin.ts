import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Reference } from "../../../src/core/contract/model.js";
import { contractContext, type RestContext } from "../../../src/core/languages/kotlin/contractContext.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { statusClass } from "../../../src/core/languages/kotlin/statusClass.js";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { RestCall, RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import type { KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import { RawServer } from "../vectors/rawServer.js";
import { sentLast, whatIsSaid, type Played } from "../vectors/playScript.js";
import type { Data } from "../vectors/vectorRow.js";
import type { VectorStep } from "../vectors/vectorSteps.js";
import { asTyped, seenInKotlin } from "./seenInKotlin.js";
import { vectorProgram } from "./vectorProgram.js";

/** What every language is told for the rows. */
const settings = { dates: "decoded", choices: "open", verify: "answers" } as const;

type Fields = Readonly<Record<string, Data>>;

/** An SDK in Kotlin with a program that performs steps. */
export interface CompiledSteps {
  readonly plan: RestPlan;
  readonly steps: readonly VectorStep[];
  /** The program's class, and the folder of all classes. */
  readonly program: string;
  readonly classes: string;
  /** Texts of the runtime as they were compiled, by path. */
  readonly runtime: ReadonlyMap<string, string>;
}

/**
 * Compiles steps and an SDK in Kotlin that performs them.
 *
 * @param printer what prints the SDK
 * @throws Error when that does not compile
 */
export async function compileSteps(
  compiler: KotlinCompiler,
  { plan, steps }: { readonly plan: RestPlan; readonly steps: readonly VectorStep[] },
  printer: { readonly language: typeof language; readonly printLowered: typeof printLowered } = {
    language,
    printLowered,
  },
): Promise<CompiledSteps> {
  const sdk = lowerSdk({ name: "app", contracts: [plan] }, settledSettings(language.settings, settings));
  const files = printer.printLowered(printer.language, sdk, { runtime: kotlinRuntime, scalars: new Map(), settings });
  const [contract] = sdk.contracts;
  if (contract?.protocol !== "rest") throw new Error("The rows are a REST contract.");
  const context: RestContext = {
    ...contractContext(contract, "app", { scalars: new Map(), formats: {} }),
    contract,
  };
  const program = vectorProgram(context, steps);
  const helpers = ["Dump.kt", "Play.kt"].map((file): [string, string] => [
    `harness/${file}`,
    readFileSync(join(packageRoot, "test/support/kotlin", file), "utf8"),
  ]);
  const compiled = await compiler.compile(new Map([...files, ...program, ...helpers]), { isStrict: false });
  if (!compiled.isFine) throw new Error(compiled.printed);
  const runtime = new Map([...files].filter(([path]) => path.startsWith("wire/")));
  return { plan, steps, program: `${context.package}.MainKt`, classes: compiled.classes, runtime };
}

/** Plays steps with an SDK in Kotlin. */
export async function playKotlin(
  compiler: KotlinCompiler,
  plan: RestPlan,
  { steps }: { readonly steps: readonly VectorStep[] },
): Promise<Played[]> {
  return playCompiled(compiler, await compileSteps(compiler, { plan, steps }));
}

/** @param instead folders of classes that go before those of the SDK */
export async function playCompiled(
  compiler: KotlinCompiler,
  { plan, steps, program, classes }: CompiledSteps,
  instead: readonly string[] = [],
): Promise<Played[]> {
  const server = await RawServer.started();
  const played: Played[] = [];
  const control = createServer((request, response) => {
    const step = steps[Number(request.url?.slice(1))];
    const pieces: Buffer[] = [];
    request.on("data", (piece: Buffer) => pieces.push(piece));
    request.on("end", () => {
      if (step && request.method === "GET") {
        server.answers = [...step.answers];
        server.requests.length = 0;
      } else if (step) {
        const said = JSON.parse(Buffer.concat(pieces).toString("utf8")) as Fields;
        played.push(judged(step, said, { plan, server }));
      }
      response.end(server.address);
    });
  });
  await new Promise<void>((resolve) => control.listen(0, "127.0.0.1", resolve));
  try {
    const port = (control.address() as AddressInfo).port;
    const run = await compiler.run(program, [...instead, classes], [`http://127.0.0.1:${String(port)}`]);
    if (!run.isFine) throw new Error(run.printed);
  } finally {
    control.close();
    server.close();
  }
  return played;
}

function judged(
  step: VectorStep,
  said: Fields,
  { plan, server }: { readonly plan: RestPlan; readonly server: RawServer },
): Played {
  const call = plan.calls.find(({ operation }) => operation.operationId === step.id);
  if (!call) throw new Error(`There is no call ${step.id}.`);
  const one = call.answers[0]?.type;
  const isStream =
    Array.isArray(said["gives"]) &&
    (step.isPaged === true || call.answers.some(({ form }) => ["events", "lines", "sequence"].includes(form)));
  const item = step.isPaged === true ? call.paging?.item : one;
  const type: Reference | undefined = isStream && item ? { shape: { kind: "list", item }, nullable: false } : one;
  const told = (said["told"] as Data[]).map((each) => {
    const [event, id] = each as string[];
    return { event, ...(id === undefined ? {} : { id }) };
  });
  const { strict } = step;
  const { gives: _gives, ...withoutGift } = step;
  const wanted: VectorStep = strict ? { ...withoutGift, fails: strict } : step;
  return {
    step,
    expected: whatIsSaid(wanted, {
      ...step.sends,
      asks: step.asks,
      gives: wanted.gives === undefined ? undefined : asTyped(wanted.gives, type, plan.types),
      fails: wanted.fails,
      told: step.told,
    }),
    found: whatIsSaid(wanted, {
      ...sentLast(server),
      asks: server.requests.map(({ target }) => target),
      gives: seenInKotlin(said["gives"] ?? null, type, plan.types),
      fails: said["fails"] === undefined ? undefined : failed(said["fails"] as Fields, wanted.fails, { call, plan }),
      told,
    }),
  };
}

/** A failure, with those of its parts that a row says. */
function failed(
  said: Fields,
  wanted: object | undefined,
  { call, plan }: { readonly call: RestCall; readonly plan: RestPlan },
): unknown {
  if (wanted === undefined) return said["message"];
  const declared = call.failures.find(({ status }) => statusClass(status) === said["class"]);
  const mishaps: Readonly<Record<string, string>> = {
    Unexpected: "unexpected",
    Malformed: "malformed",
    Unreachable: "unreachable",
    TimedOut: "timed-out",
  };
  const httpStatus = said["httpStatus"] as number | null;
  const status = declared
    ? /^\d+$/.test(declared.status)
      ? Number(declared.status)
      : declared.status
    : (mishaps[said["mishap"] as string] ?? said["class"]);
  const body = said["hasBody"] === true ? seenInKotlin(said["body"] ?? null, declared?.type, plan.types) : said["text"];
  const all: Record<string, unknown> = {
    status,
    httpStatus: httpStatus ?? undefined,
    body,
    path: said["path"] ?? undefined,
  };
  return Object.fromEntries(Object.keys(wanted).map((key) => [key, all[key]]));
}
