import { operationLabel } from "../../core/contract/model.js";
import { rootFields } from "../../core/graphql/documents/draftDocument.js";
import { credentialNames, shownTraffic, type ShownTraffic } from "../shownTraffic.js";
import type { PlayedContract } from "../playedContract.js";
import type { Judgement, SeenExchange } from "./exchange.js";
import { graphqlJudge } from "./judgeGraphql.js";
import { nearestPath, restBases, restJudge } from "./judgeRest.js";

/** A mismatch with a contract, with its count. */
export interface Disagreement {
  readonly message: string;
  readonly count: number;
  /** The first request with it, without credentials. */
  readonly first: string;
}

export interface ObservedOperation {
  readonly contract: string;
  readonly operation: string;
  readonly seen: number;
  readonly statuses: Readonly<Record<string, number>>;
  readonly disagreements: readonly Disagreement[];
}

/** All observations. */
export interface Observed {
  readonly exchanges: number;
  /** The number of requests that are for no contract. */
  readonly passedOver: number;
  readonly disagreeing: number;
  readonly operations: readonly ObservedOperation[];
  /** Requests for which no contract has an operation. */
  readonly unknown: readonly Disagreement[];
  /** The reasons for which parts could not be checked, with their counts. */
  readonly unjudged: Readonly<Record<string, number>>;
  /** Operations of REST contracts that were never called. */
  readonly neverSeen: readonly { readonly contract: string; readonly operation: string }[];
  /** The number of all operations. */
  readonly known: number;
}

interface Count {
  count: number;
  readonly first: string;
}

interface Judge {
  readonly name: string;
  readonly judge: (exchange: SeenExchange) => Judgement | undefined;
  readonly nearest: (path: string) => string | undefined;
  readonly operations: readonly string[];
}

/** Checks requests and responses with contracts, and counts the results. */
export class Observations {
  private readonly judges: readonly Judge[];
  private readonly shown: ShownTraffic;
  private readonly operations = new Map<
    string,
    { contract: string; operation: string; statuses: Map<string, number>; found: Map<string, Count> }
  >();
  private readonly unknown = new Map<string, Count>();
  private readonly unjudged = new Map<string, number>();
  private exchanges = 0;
  private passedOver = 0;
  private disagreeing = 0;

  /**
   * @param contracts the contracts to check with
   * @param base the path at the start of every request to the backend; requests below it must be in a contract
   */
  constructor(
    contracts: readonly PlayedContract[],
    private readonly base: string | undefined,
  ) {
    this.shown = shownTraffic(credentialNames(contracts.map(({ contract }) => contract)));
    this.judges = contracts.flatMap(({ contract, schema, raw, texts }): Judge[] => {
      if (contract.protocol === "rest") {
        const judge = restJudge(contract, raw);
        const own = restBases(contract);
        // If the address gives the base path, the contract's own base paths are not used.
        const bases =
          base === undefined || base === "" ? own : [base, ...own.filter((each) => each.startsWith(`${base}/`))];
        return [
          {
            name: contract.name,
            judge: (exchange) => judge(exchange, bases),
            nearest: (path) => nearestPath(contract, path, bases),
            operations: contract.operations.map(operationLabel),
          },
        ];
      }
      if (!schema) return [];
      const operations = rootFields(schema).map(({ type, field }) => `${type.name}.${field}`);
      return [{ name: contract.name, judge: graphqlJudge(schema, texts), nearest: () => undefined, operations }];
    });
  }

  /**
   * Checks one request with its response and adds the result.
   *
   * @returns undefined if it is for no contract
   */
  add(exchange: SeenExchange): (Judgement & { readonly contract: string }) | undefined {
    this.exchanges++;
    const { method, url, status } = exchange;
    const shown = `${method} ${this.pathOf(url)}`;
    const found = this.find(wholeLines(exchange));
    if (!found) {
      if (this.base === undefined || (url.pathname !== this.base && !url.pathname.startsWith(`${this.base}/`))) {
        this.passedOver++;
        return undefined;
      }
      const near = this.judges.flatMap((judge) => judge.nearest(url.pathname) ?? [])[0];
      const message = `${method} ${url.pathname} is not in any contract${near === undefined ? "" : `. The closest is ${near}`}`;
      return { contract: "", ...this.keepUnknown([message], shown) };
    }
    const { contract, judgement } = isGivenUp(exchange) ? unjudged(found) : found;
    for (const each of judgement.unjudged) this.unjudged.set(each, (this.unjudged.get(each) ?? 0) + 1);
    if (judgement.operation === undefined) {
      if (judgement.disagreements.length > 0) this.keepUnknown(judgement.disagreements, shown);
      return { contract, ...judgement };
    }
    const key = `${contract} ${judgement.operation}`;
    const entry = this.operations.get(key) ?? {
      contract,
      operation: judgement.operation,
      statuses: new Map<string, number>(),
      found: new Map<string, Count>(),
    };
    this.operations.set(key, entry);
    entry.statuses.set(String(status), (entry.statuses.get(String(status)) ?? 0) + 1);
    if (judgement.disagreements.length > 0) this.disagreeing++;
    for (const message of judgement.disagreements) count(entry.found, message, shown);
    return { contract, ...judgement };
  }

  /** Returns path and query without secrets. */
  pathOf({ pathname, search }: URL): string {
    return pathname + this.shown.query(search);
  }

  private find(exchange: SeenExchange): { contract: string; judgement: Judgement } | undefined {
    let wrongMethod: { contract: string; judgement: Judgement } | undefined;
    for (const { name, judge } of this.judges) {
      const judgement = judge(exchange);
      if (judgement === undefined) continue;
      if (judgement.operation !== undefined) return { contract: name, judgement };
      wrongMethod ??= { contract: name, judgement };
    }
    return wrongMethod;
  }

  private keepUnknown(messages: readonly string[], shown: string): Judgement {
    this.disagreeing++;
    for (const message of messages) count(this.unknown, message, shown);
    return { operation: undefined, disagreements: messages, unjudged: [] };
  }

  /** Returns the observations so far. */
  observed(): Observed {
    const disagreements = (found: ReadonlyMap<string, Count>): Disagreement[] =>
      [...found].map(([message, { count, first }]) => ({ message, count, first })).sort((a, b) => b.count - a.count);
    const rest = this.judges.flatMap(({ name, operations }) =>
      operations.map((operation) => ({ contract: name, operation })),
    );
    return {
      exchanges: this.exchanges,
      passedOver: this.passedOver,
      disagreeing: this.disagreeing,
      operations: [...this.operations.values()]
        .map(({ contract, operation, statuses, found }) => ({
          contract,
          operation,
          seen: [...statuses.values()].reduce((sum, each) => sum + each, 0),
          statuses: Object.fromEntries([...statuses].sort()),
          disagreements: disagreements(found),
        }))
        .sort((a, b) => (`${a.contract} ${a.operation}` < `${b.contract} ${b.operation}` ? -1 : 1)),
      unknown: disagreements(this.unknown),
      unjudged: Object.fromEntries([...this.unjudged].sort()),
      // Query documents select from a schema freely, so only operations of REST can be missing.
      neverSeen: rest.filter(
        ({ contract, operation }) => operation.includes(" /") && !this.operations.has(`${contract} ${operation}`),
      ),
      known: rest.filter(({ operation }) => operation.includes(" /")).length,
    };
  }
}

/** A cancelled stream, without its incomplete last item. */
function wholeLines(exchange: SeenExchange): SeenExchange {
  const { isAborted, answerBody } = exchange;
  if (isAborted !== true || answerBody === undefined) return exchange;
  return { ...exchange, answerBody: answerBody.slice(0, answerBody.lastIndexOf("\n") + 1) };
}

/**
 * Whether nothing can be checked, because the app cancelled it. The received part of a stream is complete as far as it
 * goes.
 */
function isGivenUp({ isAborted, status, answerHeader }: SeenExchange): boolean {
  if (isAborted !== true && status !== 0) return false;
  return (
    status === 0 || !/event-stream|ndjson|jsonl|json-seq|multipart\/mixed/.test(answerHeader("content-type") ?? "")
  );
}

function unjudged({ contract, judgement }: { contract: string; judgement: Judgement }) {
  const { operation } = judgement;
  return { contract, judgement: { operation, disagreements: [], unjudged: ["the app gave the call up"] } };
}

function count(found: Map<string, Count>, message: string, first: string): void {
  const known = found.get(message);
  if (known) known.count++;
  else found.set(message, { count: 1, first });
}
