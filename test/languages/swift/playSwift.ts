import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import type { Reference } from "../../../src/core/contract/model.js";
import { printLowered } from "../../../src/core/languages/printSdk.js";
import { settledSettings } from "../../../src/core/languages/settings.js";
import { contractContext, type RestContext } from "../../../src/core/languages/swift/contractContext.js";
import { language } from "../../../src/core/languages/swift/language.js";
import { statusCase } from "../../../src/core/languages/swift/statusCase.js";
import { lowerSdk } from "../../../src/core/sdk/lower/lowerSdk.js";
import type { RestCall, RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { packageRoot } from "../../support/packageRoot.js";
import { compileSwift, runSwift } from "../../support/swift/swiftCompiler.js";
import { swiftRuntime } from "../../support/swift/swiftRuntime.js";
import { asTyped } from "../kotlin/seenInKotlin.js";
import { sentLast, whatIsSaid, type Played } from "../vectors/playScript.js";
import { RawServer } from "../vectors/rawServer.js";
import type { Data } from "../vectors/vectorRow.js";
import type { VectorStep } from "../vectors/vectorSteps.js";
import { seenInSwift } from "./seenInSwift.js";
import { vectorProgram } from "./vectorProgram.js";

/** What every language is told for the rows. */
const settings = { dates: "decoded", choices: "open", verify: "answers" } as const;

type Fields = Readonly<Record<string, Data>>;

/** Compiles an SDK in Swift with a program that performs steps; gives the program. @throws Error when that does not compile */
export async function compileSteps(plan: RestPlan, steps: readonly VectorStep[]): Promise<string> {
  const sdk = lowerSdk({ name: "app", contracts: [plan] }, settledSettings(language.settings, settings));
  const files = printLowered(language, sdk, { runtime: swiftRuntime, scalars: new Map(), settings });
  const [contract] = sdk.contracts;
  if (contract?.protocol !== "rest") throw new Error("The rows are a REST contract.");
  const context: RestContext = { ...contractContext(contract, {}, new Map()), contract };
  const helpers = ["Dump.swift", "DumpedDate.swift", "Play.swift"].map((file): [string, string] => [
    `Harness/${file}`,
    readFileSync(join(packageRoot, "test/support/swift", file), "utf8"),
  ]);
  const sources = [...files].filter(([path]) => path.endsWith(".swift"));
  const all = new Map([...sources, ...vectorProgram(context, steps), ...helpers]);
  const { isFine, printed, program } = await compileSwift(all, { isStrict: false });
  if (!isFine) throw new Error(printed);
  return program;
}

/** Plays steps with an SDK in Swift. */
export async function playSwift(plan: RestPlan, steps: readonly VectorStep[]): Promise<Played[]> {
  const program = await compileSteps(plan, steps);
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
    const run = await runSwift([program, `http://127.0.0.1:${String(port)}`]);
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
      target: withBrackets(server.requests.at(-1)?.target ?? "", step.sends.target),
      asks: server.requests.map(({ target }) => target),
      gives: seenInSwift(said["gives"] ?? null, type, plan.types),
      fails: said["fails"] === undefined ? undefined : failed(said["fails"] as Fields, wanted.fails, { call, plan }),
      told,
    }),
  };
}

/** A target as a row has it: addresses of this platform hold no brackets, encoded ones mean the same. */
function withBrackets(target: string, wanted: string | undefined): string {
  return wanted?.includes("[") === true ? target.replaceAll("%5B", "[").replaceAll("%5D", "]") : target;
}

/** A failure, with those of its parts that a row says. */
function failed(
  said: Fields,
  wanted: object | undefined,
  { call, plan }: { readonly call: RestCall; readonly plan: RestPlan },
): unknown {
  if (wanted === undefined) return said["message"];
  const declared = call.failures.find(({ status }) => statusCase(status) === said["class"]);
  const status = declared
    ? /^\d+$/.test(declared.status)
      ? Number(declared.status)
      : declared.status
    : (said["mishap"] ?? said["class"]);
  const body = said["hasBody"] === true ? seenInSwift(said["body"] ?? null, declared?.type, plan.types) : said["text"];
  const all: Record<string, unknown> = {
    status,
    httpStatus: said["httpStatus"] ?? undefined,
    body,
    path: said["path"] ?? undefined,
  };
  return Object.fromEntries(Object.keys(wanted).map((key) => [key, all[key]]));
}
