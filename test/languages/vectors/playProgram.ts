import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import type { Reference } from "../../../src/core/contract/model.js";
import type { PlannedType, RestCall, RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import { asTyped } from "./asTyped.js";
import { sentLast, whatIsSaid, type Played } from "./playScript.js";
import { RawServer } from "./rawServer.js";
import type { Data } from "./vectorRow.js";
import type { VectorStep } from "./vectorSteps.js";

type Fields = Readonly<Record<string, Data>>;

/** How a language's program reports what it sees. */
export interface ProgramSight {
  /** Returns a value in the form of rows, from the program's dump. */
  readonly seen: (dumped: Data, reference: Reference | undefined, types: ReadonlyMap<string, PlannedType>) => unknown;
  /** Returns the program's name for a declared status. */
  readonly declared: (status: string) => string;
  /** Returns the rows' name for a failure, from the program's name. */
  readonly mishap: (said: string) => string | undefined;
  /** Returns the target of a request in the form of rows. */
  readonly target?: (found: string, wanted: string | undefined) => string;
}

/** A server for a program that asks for permission before each step and reports the result at its end. */
export async function withControl(
  tell: {
    readonly begin: (at: number) => void;
    readonly end: (at: number, said: Fields) => void;
    readonly address: string;
  },
  run: (control: string) => Promise<{ readonly isFine: boolean; readonly printed: string }>,
): Promise<void> {
  const control = createServer((request, response) => {
    const at = Number(request.url?.slice(1));
    const pieces: Buffer[] = [];
    request.on("data", (piece: Buffer) => pieces.push(piece));
    request.on("end", () => {
      if (request.method === "GET") tell.begin(at);
      else tell.end(at, JSON.parse(Buffer.concat(pieces).toString("utf8")) as Fields);
      response.end(tell.address);
    });
  });
  await new Promise<void>((resolve) => control.listen(0, "127.0.0.1", resolve));
  try {
    const { port } = control.address() as AddressInfo;
    const { isFine, printed } = await run(`http://127.0.0.1:${String(port)}`);
    if (!isFine) throw new Error(printed);
  } finally {
    control.close();
  }
}

/**
 * Runs steps with a program in another language.
 *
 * @param run runs the program with the address of the server
 */
export async function playProgram(
  { plan, steps }: { readonly plan: RestPlan; readonly steps: readonly VectorStep[] },
  sight: ProgramSight,
  run: Parameters<typeof withControl>[1],
): Promise<Played[]> {
  const server = await RawServer.started();
  const played: Played[] = [];
  try {
    await withControl(
      {
        address: server.address,
        begin: (at) => {
          server.answers = [...(steps[at]?.answers ?? [])];
          server.requests.length = 0;
        },
        end: (at, said) => {
          const step = steps[at];
          if (step) played.push(judged(step, said, { plan, server, sight }));
        },
      },
      run,
    );
  } finally {
    server.close();
  }
  return played;
}

interface Judging {
  readonly plan: RestPlan;
  readonly server: RawServer;
  readonly sight: ProgramSight;
}

function judged(step: VectorStep, said: Fields, { plan, server, sight }: Judging): Played {
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
  const sent = sentLast(server);
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
      ...sent,
      ...(sight.target ? { target: sight.target(sent.target ?? "", step.sends.target) } : {}),
      asks: server.requests.map(({ target }) => target),
      gives: sight.seen(said["gives"] ?? null, type, plan.types),
      fails:
        said["fails"] === undefined ? undefined : failed(said["fails"] as Fields, wanted.fails, { call, plan, sight }),
      told,
    }),
  };
}

/** A failure, with the parts that a row contains. */
function failed(
  said: Fields,
  wanted: object | undefined,
  { call, plan, sight }: { readonly call: RestCall; readonly plan: RestPlan; readonly sight: ProgramSight },
): unknown {
  if (wanted === undefined) return said["message"];
  const declared = call.failures.find(({ status }) => sight.declared(status) === said["class"]);
  const status = declared
    ? /^\d+$/.test(declared.status)
      ? Number(declared.status)
      : declared.status
    : (sight.mishap(said["mishap"] as string) ?? said["class"]);
  const body = said["hasBody"] === true ? sight.seen(said["body"] ?? null, declared?.type, plan.types) : said["text"];
  const all: Record<string, unknown> = {
    status,
    httpStatus: said["httpStatus"] ?? undefined,
    body,
    path: said["path"] ?? undefined,
  };
  return Object.fromEntries(Object.keys(wanted).map((key) => [key, all[key]]));
}
