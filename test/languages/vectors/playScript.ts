import { RawServer } from "./rawServer.js";
import { endOf, seen, valueOf } from "./scriptValues.js";
import type { SentRequest } from "./vectorRow.js";
import type { VectorStep } from "./vectorSteps.js";

/** The expected and the actual result of a step. */
export interface Played {
  readonly step: VectorStep;
  readonly expected: unknown;
  readonly found: unknown;
}

/** The module of an SDK's contract. */
export type SdkModule = Readonly<Record<string, (...given: unknown[]) => unknown>>;

/**
 * Runs steps with an SDK in TypeScript or JavaScript. @param connect the name of the function that creates a connection
 */
export async function playScript(sdk: SdkModule, connect: string, steps: readonly VectorStep[]): Promise<Played[]> {
  const server = await RawServer.started();
  const played: Played[] = [];
  let before: unknown;
  try {
    for (const step of steps) {
      server.answers = [...step.answers];
      server.requests.length = 0;
      const connection = sdk[connect]?.({
        baseUrl: server.address,
        auth: valueOf(step.auth),
        ...(step.headers ? { headers: step.headers } : {}),
      });
      const given = valueOf(step.given) as Record<string, unknown>;
      if (step.givenBack !== undefined) given[step.givenBack] = before;
      const told: unknown[] = [];
      const call = sdk[step.isPaged === true ? `${step.id}Items` : step.id];
      const options = { onEvent: (event: unknown) => told.push(event) };
      const ended = await endOf(() => call?.(connection, given, ...(step.told ? [options] : [])));
      before = ended.value;
      played.push({
        step,
        expected: whatIsSaid(step, {
          ...step.sends,
          asks: step.asks,
          gives: step.gives,
          fails: step.fails,
          told: step.told,
        }),
        found: whatIsSaid(step, {
          ...sentLast(server),
          asks: server.requests.map(({ target }) => target),
          gives: ended.items ?? (await seen(ended.value)),
          fails: ended.error === undefined ? undefined : await failed(ended.error, step.fails),
          told,
        }),
      });
    }
  } finally {
    server.close();
  }
  return played;
}

interface Said extends SentRequest {
  readonly asks?: readonly string[] | undefined;
  readonly gives?: unknown;
  readonly fails?: unknown;
  readonly told?: unknown;
}

/** The parts of an end that a row contains; always a failure. */
export function whatIsSaid({ sends, ...step }: VectorStep, ended: Said): unknown {
  const said = { ...sends, ...step };
  const kept = (["method", "target", "body", "asks", "gives", "told"] as const).filter(
    (key) => key in said && said[key as keyof typeof said] !== undefined,
  );
  const headers = sends.headers && Object.keys(sends.headers).map((name) => [name, ended.headers?.[name] ?? null]);
  return {
    ...Object.fromEntries(kept.map((key) => [key, ended[key]])),
    ...(headers ? { headers: Object.fromEntries(headers) as unknown } : {}),
    ...(ended.fails === undefined ? {} : { fails: ended.fails }),
  };
}

/** The last request, with its boundary replaced. */
export function sentLast({ requests }: RawServer): SentRequest {
  const last = requests.at(-1);
  if (!last) return {};
  const boundary = /boundary=(\S+)/.exec(last.headers.get("content-type") ?? "")?.[1];
  return {
    method: last.method,
    target: last.target,
    headers: Object.fromEntries(last.headers),
    body: boundary === undefined ? last.body : last.body.replaceAll(boundary, "BOUNDARY"),
  };
}

/** A failure, with the parts that a row contains. */
async function failed(error: unknown, wanted: object | undefined): Promise<unknown> {
  const { status, httpStatus, body, cause, message } = error as Record<string, unknown>;
  if (wanted === undefined) return String(message);
  const all: Record<string, unknown> = {
    status,
    httpStatus,
    body: await seen(body),
    path: (cause as { path?: string } | undefined)?.path,
  };
  return Object.fromEntries(Object.keys(wanted).map((key) => [key, all[key]]));
}
