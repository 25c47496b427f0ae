import { setTimeout as pause } from "node:timers/promises";
import { WebSocket } from "ws";
import type { Reference } from "../../../src/core/contract/model.js";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import { endOf, seen, valueOf } from "../vectors/scriptValues.js";
import type { SdkModule } from "../vectors/playScript.js";
import { inContractOrder } from "./contractOrder.js";
import type { Recorded, Recorder } from "./recorder.js";
import type { StoryConnection, StoryStep } from "./storyStep.js";

/** Headers that Node's platform sets itself. */
export const platformHeaders: ReadonlySet<string> = new Set([
  "accept: */*",
  "accept-encoding",
  "accept-language",
  "connection",
  "content-length",
  "host",
  "sec-fetch-mode",
  "transfer-encoding",
  "user-agent",
]);

/** An SDK in TypeScript or JavaScript: the modules of its contracts, and its runtime. */
export interface ScriptSdk {
  readonly contracts: Readonly<
    Record<string, { readonly module: SdkModule; readonly connect: string; readonly plan: ContractPlan }>
  >;
  readonly wire: SdkModule;
}

/** What an SDK saw in a step, as one line of JSON, and what it sent. */
export interface Told {
  readonly line: string;
  readonly requests: readonly Recorded[];
}

/** Runs one step. */
export async function playStep(step: StoryStep, { contracts, wire }: ScriptSdk, recorder: Recorder): Promise<Told> {
  const own = contracts[step.contract];
  if (!own) throw new Error(`There is no contract ${step.contract}.`);
  const { module, connect, plan } = own;
  recorder.requests = [];
  recorder.interrupts = [...(step.interrupts ?? [])];
  const found = callOf(plan, step.call);
  const connection = module[connect]?.(optionsOf(step.connection ?? {}, `${recorder.address}/${step.contract}`, wire));
  const controller = new AbortController();
  if (step.cancels === "before") controller.abort();
  else if (step.cancels !== undefined)
    void pause(step.cancels).then(() => {
      controller.abort();
    });
  const name = `${found.name}${step.isPaged === true ? "Items" : ""}`;
  const line = await ended(() => module[name]?.(connection, valueOf(step.given ?? {}), { signal: controller.signal }), {
    takes: step.takes ?? Infinity,
    tell: (value, isItem) =>
      inContractOrder(value, isItem && step.isPaged === true ? found.item : found.answer, plan.types),
  });
  return { line: JSON.stringify(line), requests: recorder.requests };
}

const unsaid: Reference = { shape: { kind: "any" }, nullable: true };

/** The name of a call, and its result; for a stream, each of its items. */
export function callOf(
  plan: ContractPlan,
  wanted: string,
): { readonly name: string; readonly answer: Reference; readonly item: Reference } {
  if (plan.protocol === "graphql") {
    const call = plan.calls.find(({ operation }) => operation.name === wanted);
    if (!call) throw new Error(`There is no query ${wanted}.`);
    return { name: `${call.name.charAt(0).toLowerCase()}${call.name.slice(1)}`, answer: call.answer, item: unsaid };
  }
  const call = plan.calls.find(({ operation }) => operation.operationId === wanted);
  if (!call) throw new Error(`There is no call ${wanted}.`);
  return { name: wanted, answer: call.answers[0]?.type ?? unsaid, item: call.paging?.item ?? unsaid };
}

function optionsOf(
  { auth = {}, renewed = {}, headers, timeoutMs, retries, overSocket }: StoryConnection,
  baseUrl: string,
  wire: SdkModule,
): object {
  const suppliers = Object.entries(renewed).map(([name, credentials]) => {
    const left = [...credentials];
    return [name, wire["renewable"]?.(() => left.shift() ?? "none")];
  });
  return {
    baseUrl,
    auth: { ...auth, ...(Object.fromEntries(suppliers) as object) },
    ...(headers ? { headers } : {}),
    ...(timeoutMs === undefined ? {} : { timeoutMs }),
    ...(overSocket === true ? { subscriptions: wire["overWebSocket"]?.({ WebSocket }) } : {}),
    ...(retries === undefined ? {} : { around: [wire["retrying"]?.({ times: retries, pauseMs: 1 })] }),
  };
}

interface Telling {
  readonly takes: number;
  readonly tell: (value: unknown, isItem: boolean) => unknown;
}

async function ended(call: () => unknown, { takes, tell }: Telling): Promise<object> {
  const { value, items, error } = await endOf(call, takes);
  const told = items?.map((item) => tell(item, true));
  if (error === undefined) return told ? { items: told } : { gives: tell(await seen(value), false) };
  const { status, cause } = error as { readonly status?: unknown; readonly cause?: { readonly path?: string } };
  if (status === undefined) throw error as Error;
  const path = cause?.path;
  return {
    ...(told && told.length > 0 ? { items: told } : {}),
    fails: { kind: kindOf(status), status, ...(path === undefined ? {} : { path }) },
  };
}

/** The kind of failure for a status. */
export function kindOf(status: unknown): string {
  return typeof status === "number" || /^(?:\dXX|default)$/.test(String(status)) ? "declared" : String(status);
}
