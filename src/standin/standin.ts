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
import { Overrides, type StandingOverride } from "./override.js";

export interface StandinOptions {
  readonly seed: number;
  readonly eventEveryMs: number;
  /** Called with each request after its response. */
  readonly onCall?: (entry: JournalEntry) => void;
  /** Overrides from the start. */
  readonly overrides?: readonly StandingOverride[];
  /** Whether requests need a credential where the contract requires one. */
  readonly asksAuth?: boolean;
}

/**
 * A server for contracts: each below its name, `/berths/…` and `/passages`, for any origin, with a page at its root.
 */
export interface Standin {
  /** Handles a request. The second argument contains the request of Node's own server, if it came over one. */
  readonly fetch: (request: Request, server?: { readonly incoming: IncomingMessage }) => Response | Promise<Response>;
  /** Sends a request without a network. */
  readonly request: (path: string, init?: RequestInit) => Promise<Response>;
  /**
   * Serves these contracts from now on. Items that were created, changed and removed stay as far as they are still
   * valid.
   */
  readonly replace: (contracts: readonly PlayedContract[]) => void;
  /** Drops all created, changed and removed items. */
  readonly forget: () => void;
  readonly contracts: () => readonly PlayedContract[];
  readonly journal: Journal;
  readonly overrides: Overrides;
  /** Runs an operation of a GraphQL contract for a socket; undefined if no such contract is served. */
  readonly subscriptionsOf: (contract: string) => Subscribing | undefined;
  /** Returns the items of each contract so far. */
  readonly shelvesOf: (contract: string) => Shelves;
}

type Play = (request: Request, body: SentBody) => Promise<PlayedAnswer>;

const mostBytes = 64 * 1024 * 1024;

/** Creates a stand-in server. */
export function createStandin(given: readonly PlayedContract[], options: StandinOptions): Standin {
  return new StandinServer(given, options);
}

class StandinServer implements Standin {
  readonly overrides: Overrides;
  readonly journal = new Journal();
  private readonly shelves = new Map<string, Shelves>();
  private readonly app = new Hono();
  private played: readonly PlayedContract[] = [];
  private plays = new Map<string, Play>();
  private shown = shownTraffic(new Set());

  constructor(
    given: readonly PlayedContract[],
    private readonly options: StandinOptions,
  ) {
    this.overrides = new Overrides(options.overrides);
    this.replace(given);
    this.addRoutes();
  }

  fetch(request: Request, server?: { readonly incoming: IncomingMessage }): Response | Promise<Response> {
    return this.app.fetch(request, server);
  }

  async request(path: string, init?: RequestInit): Promise<Response> {
    return this.app.request(path, init);
  }

  contracts(): readonly PlayedContract[] {
    return this.played;
  }

  replace(contracts: readonly PlayedContract[]): void {
    this.played = contracts;
    this.shown = shownTraffic(credentialNames(contracts.map(({ contract }) => contract)));
    this.plays = new Map(contracts.flatMap((each) => this.playsOf(each)));
    this.journal.renew();
  }

  forget(): void {
    for (const each of this.shelves.values()) each.clear();
  }

  shelvesOf(contract: string): Shelves {
    const known = this.shelves.get(contract) ?? new Shelves();
    this.shelves.set(contract, known);
    return known;
  }

  subscriptionsOf(name: string): Subscribing | undefined {
    const { seed, eventEveryMs } = this.options;
    const { schema, texts, scalars } = this.played.find(({ contract }) => contract.name === name) ?? {};
    if (!schema) return undefined;
    const shelves = this.shelvesOf(name);
    const run = subscribeGraphql(schema, { seed, overrides: this.overrides, shelves, eventEveryMs, scalars });
    return (payload) => {
      const asked = readAsked(payload, texts);
      if ("error" in asked) return Promise.resolve({ errors: [{ message: asked.error }] });
      this.noteSubscription(name, asked);
      return run(asked);
    };
  }

  private playsOf({ contract, schema, raw, texts, scalars }: PlayedContract): [string, Play][] {
    const { seed, eventEveryMs, asksAuth = false } = this.options;
    const { name } = contract;
    const common = { seed, overrides: this.overrides, shelves: this.shelvesOf(name) };
    if (contract.protocol === "rest") {
      const play = playRest(contract, raw, { ...common, asksAuth });
      const below = (request: Request): string => new URL(request.url).pathname.slice(name.length + 1) || "/";
      return [[name, (request, body) => play(request, below(request), body)]];
    }
    return schema ? [[name, playGraphql(schema, { ...common, eventEveryMs, texts, scalars })]] : [];
  }

  private addRoutes(): void {
    const { app } = this;
    app.use("/:contract/*", async (context, next) =>
      this.plays.has(context.req.param("contract")) ? anyOrigin(context as Context<object, string>, next) : next(),
    );
    addPage(app, {
      ...{ journal: this.journal, overrides: this.overrides, seed: this.options.seed },
      ...{ contracts: () => this.played, forget: this.forget.bind(this) },
    });
    app.all("/:contract/*", async (context, next) => {
      const name = context.req.param("contract");
      const play = this.plays.get(name);
      if (!play) return next();
      const startedAt = performance.now();
      const { incoming } = (context.env ?? {}) as { incoming?: IncomingMessage };
      const played = await play(context.req.raw, sentBody(context.req.raw, incoming, mostBytes));
      this.note(name, context.req.raw, { startedAt, played });
      return played.response;
    });
    app.notFound((context) => context.json(this.nothingPlayed(), 404));
    app.onError((error, context) =>
      error instanceof TooLarge
        ? context.json({ title: "The request is too large", status: 413, detail: "At most 64 MB." }, 413)
        : context.json({ title: "Internal error of the stand-in server", status: 500, detail: error.message }, 500),
    );
  }

  private nothingPlayed(): object {
    const played = [...this.plays.keys()].map((name) => `/${name}`).join(", ");
    return { title: "No contract here", status: 404, detail: `Contracts: ${played}.` };
  }

  private note(
    contract: string,
    request: Request,
    { startedAt, played }: { readonly startedAt: number; readonly played: PlayedAnswer },
  ): void {
    const { shown } = this;
    const url = new URL(request.url);
    const entry = this.journal.add({
      at: Date.now(),
      ms: performance.now() - startedAt,
      contract,
      operation: played.operation,
      method: request.method,
      path: url.pathname + shown.query(url.search),
      status: played.response.status,
      misfits: played.misfits.map(({ in: where, name, message }) =>
        where === "body" || where === "path" ? message : `${where} ${name} ${message}`,
      ),
      faults: played.faults,
      request: () => ({ headers: shown.headers(request.headers), body: shown.body(played.received ?? "") }),
      answer: () => ({ headers: shown.headers(played.response.headers), body: shown.body(played.sent) }),
    });
    this.options.onCall?.(entry);
  }

  private noteSubscription(contract: string, asked: { readonly query: string }): void {
    const query = { headers: {}, body: this.shown.body(JSON.stringify(asked)) };
    const operation = /^\s*(subscription\s+\w+)/.exec(asked.query)?.[1];
    const entry = { at: Date.now(), ms: 0, contract, operation, method: "WS", path: `/${contract}`, status: 101 };
    this.options.onCall?.(
      this.journal.add({
        ...entry,
        misfits: [],
        faults: [],
        request: () => query,
        answer: () => ({ headers: {}, body: "(events)" }),
      }),
    );
  }
}
