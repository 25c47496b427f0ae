import type { PlayedContract } from "./playedContract.js";

import type { IncomingMessage } from "node:http";

import { Hono, type Context } from "hono";

import { anyOrigin } from "./anyOrigin.js";
import { Journal, type JournalEntry } from "./journal.js";
import { addPage } from "./page/addPage.js";
import { playGraphql, readAsked, subscribeGraphql } from "./graphql/playGraphql.js";
import type { Subscribing } from "./graphql/subscriptionSocket.js";
import { playRest } from "./rest/playRest.js";
import type { PlayedAnswer } from "./playedAnswer.js";
import { sentBody, TooLarge, type SentBody } from "./rest/sentBody.js";
import { credentialNames, shownTraffic } from "./shownTraffic.js";
import { Shelves } from "./shelves.js";
import { Wishes, type StandingWish } from "./wish.js";

export interface StandinOptions {
  readonly seed: number;
  readonly eventEveryMs: number;
  /** Told of each request when it was answered. */
  readonly onCall?: (entry: JournalEntry) => void;
  /** What is wished from the start. */
  readonly wishes?: readonly StandingWish[];
  /** Requests have to bring a credential where the contract says so. */
  readonly asksAuth?: boolean;
}

/** A server that plays contracts: each below its name, `/berths/…` and `/passages`, for any origin; a page at its root. */
export interface Standin {
  /** The second argument holds the request as Node's own server has it, where it came over one. */
  readonly fetch: (request: Request, server?: { readonly incoming: IncomingMessage }) => Response | Promise<Response>;
  /** Sends a request without a network. */
  readonly request: (path: string, init?: RequestInit) => Promise<Response>;
  /** Plays these contracts from now on; what was created, changed and removed stays as far as it fits. */
  readonly replace: (contracts: readonly PlayedContract[]) => void;
  /** Forgets what was created, changed and removed. */
  readonly forget: () => void;
  readonly contracts: () => readonly PlayedContract[];
  readonly journal: Journal;
  readonly wishes: Wishes;
  /** Runs an operation of a GraphQL contract for a socket; undefined where no such contract is played. */
  readonly subscriptionsOf: (contract: string) => Subscribing | undefined;
  /** What was made in each contract so far. */
  readonly shelvesOf: (contract: string) => Shelves;
}

type Play = (request: Request, body: SentBody) => Promise<PlayedAnswer>;

const mostBytes = 64 * 1024 * 1024;

/** Makes a stand-in. */
export function createStandin(given: readonly PlayedContract[], options: StandinOptions): Standin {
  const { seed, eventEveryMs, onCall, asksAuth = false } = options;
  const wishes = new Wishes(options.wishes);
  const journal = new Journal();
  const shelves = new Map<string, Shelves>();
  let contracts = given;
  let plays = new Map<string, Play>();
  let shown = shownTraffic(new Set());

  const shelvesOf = (name: string): Shelves => {
    const known = shelves.get(name) ?? new Shelves();
    shelves.set(name, known);
    return known;
  };
  const replace = (next: readonly PlayedContract[]): void => {
    contracts = next;
    shown = shownTraffic(credentialNames(next.map(({ contract }) => contract)));
    plays = new Map(
      next.flatMap(({ contract, schema, raw, texts, scalars }): [string, Play][] => {
        const common = { seed, wishes, shelves: shelvesOf(contract.name) };
        if (contract.protocol === "rest") {
          const play = playRest(contract, raw, { ...common, asksAuth });
          const below = (request: Request): string =>
            new URL(request.url).pathname.slice(contract.name.length + 1) || "/";
          return [[contract.name, (request, body) => play(request, below(request), body)]];
        }
        if (!schema) return [];
        const play = playGraphql(schema, { ...common, eventEveryMs, texts, scalars });
        return [[contract.name, play]];
      }),
    );
    journal.renew();
  };
  replace(given);

  const record = (
    name: string,
    request: Request,
    { startedAt, played }: { readonly startedAt: number; readonly played: PlayedAnswer },
  ): void => {
    const url = new URL(request.url);
    const entry = journal.add({
      at: Date.now(),
      ms: performance.now() - startedAt,
      contract: name,
      operation: played.operation,
      method: request.method,
      path: url.pathname + shown.query(url.search),
      status: played.response.status,
      misfits: played.misfits.map(({ in: where, name: what, message }) =>
        where === "body" || where === "path" ? message : `${where} ${what} ${message}`,
      ),
      faults: played.faults,
      request: () => ({ headers: shown.headers(request.headers), body: shown.body(played.received ?? "") }),
      answer: () => ({ headers: shown.headers(played.response.headers), body: shown.body(played.sent) }),
    });
    onCall?.(entry);
  };

  const app = new Hono();
  app.use("/:contract/*", async (context, next) =>
    plays.has(context.req.param("contract")) ? anyOrigin(context as Context<object, string>, next) : next(),
  );
  addPage(app, { journal, wishes, contracts: () => contracts, forget, seed });
  app.all("/:contract/*", async (context, next) => {
    const name = context.req.param("contract");
    const play = plays.get(name);
    if (!play) return next();
    const startedAt = performance.now();
    const { incoming } = (context.env ?? {}) as { incoming?: IncomingMessage };
    const played = await play(context.req.raw, sentBody(context.req.raw, incoming, mostBytes));
    record(name, context.req.raw, { startedAt, played });
    return played.response;
  });
  app.notFound((context) =>
    context.json(
      {
        title: "Nothing is played here",
        status: 404,
        detail: `Played: ${[...plays.keys()].map((name) => `/${name}`).join(", ")}.`,
      },
      404,
    ),
  );
  app.onError((error, context) =>
    error instanceof TooLarge
      ? context.json({ title: "More is sent than this takes", status: 413, detail: "At most 64 MB." }, 413)
      : context.json({ title: "The stand-in met a defect of its own", status: 500, detail: error.message }, 500),
  );

  function forget(): void {
    for (const each of shelves.values()) each.clear();
  }

  return {
    fetch: (request, server) => app.fetch(request, server),
    request: async (path, init) => app.request(path, init),
    replace,
    forget,
    contracts: () => contracts,
    journal,
    wishes,
    subscriptionsOf: (name) => {
      const { schema, texts, scalars } = contracts.find(({ contract }) => contract.name === name) ?? {};
      if (!schema) return undefined;
      const run = subscribeGraphql(schema, { seed, wishes, shelves: shelvesOf(name), eventEveryMs, scalars });
      return (payload) => {
        const asked = readAsked(payload, texts);
        if ("error" in asked) return Promise.resolve({ errors: [{ message: asked.error }] });
        const query = { headers: {}, body: shown.body(JSON.stringify(asked)) };
        const operation = /^\s*(subscription\s+\w+)/.exec(asked.query)?.[1];
        const entry = { at: Date.now(), ms: 0, contract: name, operation, method: "WS", path: `/${name}`, status: 101 };
        onCall?.(
          journal.add({
            ...entry,
            misfits: [],
            faults: [],
            request: () => query,
            answer: () => ({ headers: {}, body: "(events)" }),
          }),
        );
        return run(asked);
      };
    },
    shelvesOf,
  };
}
