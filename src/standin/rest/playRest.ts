import { STATUS_CODES } from "node:http";
import {
  isStream,
  operationLabel,
  type Content,
  type Reference,
  type Response as DeclaredResponse,
  type RestContract,
  type RestOperation,
  type StreamForm,
} from "../../core/contract/model.js";
import type { Place } from "../../core/problem/place.js";
import { nearest } from "../../core/text/nearest.js";
import { preferredContent } from "../../core/sdk/planContent.js";
import { isData } from "../../core/text/parseData.js";
import { contractValidator, type ContractValidator } from "../samples/ajvForContract.js";
import { checkRequest, type Misfit } from "./checkRequest.js";
import { contentExample } from "../samples/contractExamples.js";
import { findDeeds, listSlot, thingSlot, type Deed } from "../deeds.js";
import { operationMatcher, type Matching, type MatchedOperation } from "./matchOperation.js";
import { missingAuth } from "./missingAuth.js";
import { responseFor } from "./responseFor.js";
import { pageOf } from "./pageOf.js";
import type { PlayedAnswer } from "../playedAnswer.js";
import { RestThings } from "./restThings.js";
import { sampleAnswer, type SampleContext } from "../samples/sampleAnswer.js";
import { SampleBudget } from "../samples/sampleBudget.js";
import { seededFaker, type Fake } from "../samples/seededFaker.js";
import type { SentBody } from "./sentBody.js";
import { Shelves } from "../shelves.js";
import { waitFor, overrideHeader, type Override, type Overrides } from "../override.js";

/** A handler that serves a REST contract for paths below its mount point. */
export type PlayRest = (request: Request, path: string, body: SentBody) => Promise<PlayedAnswer>;

export interface RestPlayOptions {
  readonly seed: number;
  readonly overrides: Overrides;
  /** Whether requests need a credential where the contract requires one. */
  readonly asksAuth: boolean;
  /** The items that were created, changed and removed so far. */
  readonly shelves?: Shelves;
}

/**
 * Serves a REST contract. Every request is validated and refused with the reason if it is not valid. Responses are the
 * contract's examples or data of its shape, the same for the same seed and request. Items that are created, changed or
 * removed stay so.
 *
 * @param raw the parsed contract document, with which Ajv validates requests
 * @returns the handler
 */
export function playRest(contract: RestContract, raw: unknown, options: RestPlayOptions): PlayRest {
  const player = new RestPlayer(contract, raw, options);
  return (request, path, body) => player.answer(request, path, body);
}

const usualItems = 7;

class RestPlayer {
  private readonly match: (method: string, path: string) => Matching;
  private readonly requests: ContractValidator;
  private readonly answers: ContractValidator;
  private readonly credentials: ReadonlySet<string>;
  private readonly deeds: ReadonlyMap<RestOperation, Deed>;
  private readonly things: RestThings;

  constructor(
    private readonly contract: RestContract,
    private readonly raw: unknown,
    private readonly options: RestPlayOptions,
  ) {
    this.match = operationMatcher(contract.operations);
    this.requests = contractValidator(raw, contract.dialect, "request");
    this.answers = contractValidator(raw, contract.dialect, "answer");
    this.credentials = new Set(
      [...contract.authSchemes.values()].flatMap((scheme) =>
        scheme.kind === "key" && scheme.in === "query" ? [scheme.name] : [],
      ),
    );
    this.deeds = findDeeds(contract.operations, contract.types);
    this.things = new RestThings(options.shelves ?? new Shelves(), (type, name, facts, isLater, seed) =>
      sampleAnswer(type, name, {
        ...this.context(seed),
        known: new Map(Object.entries(facts)),
        isRepeated: isLater !== "no",
        ...(isLater === "as sent" ? { isWhole: "as sent" } : {}),
      }),
    );
  }

  async answer(request: Request, path: string, body: SentBody): Promise<PlayedAnswer> {
    const found = this.match(request.method, path);
    if (found.kind !== "match") return this.unknownPath(found, path);
    const { operation } = found.match;
    const label = operationLabel(operation);
    const url = new URL(request.url);
    const override = this.options.overrides.for([operation.operationId, label], request.headers.get(overrideHeader));
    if (typeof override === "string")
      return refusal(400, "Invalid override", { detail: `${override}.`, more: { operation: label } });
    const text = await body.text();
    await waitFor(override);
    return { ...this.judge(request, path, { match: found.match, url, override, label, text }), received: text };
  }

  private judge(
    request: Request,
    path: string,
    {
      match,
      url,
      override,
      label,
      text,
    }: {
      readonly match: MatchedOperation;
      readonly url: URL;
      readonly override: Override;
      readonly label: string;
      readonly text: string;
    },
  ): PlayedAnswer {
    const { operation } = match;
    const header = (name: string): string | undefined => request.headers.get(name) ?? undefined;
    const missing = this.options.asksAuth
      ? missingAuth(operation, this.contract, { header, query: url.searchParams })
      : undefined;
    if (missing !== undefined) return this.unauthorized(operation, label, missing);
    const seen = {
      query: url.search.slice(1),
      header,
      mediaType: header("content-type"),
      body: text,
    };
    const { types } = this.contract;
    const checked = checkRequest(match, seen, {
      validator: this.requests,
      requestContext: { types, credentials: this.credentials },
    });
    if (checked.misfits.length > 0)
      return refusal(400, "The request does not match the contract", {
        detail: misfitText(checked.misfits),
        more: {
          operation: label,
          misfits: checked.misfits,
        },
      });
    return this.perform(match, { url, path, accept: header("accept") ?? "", body: checked.body, override, label });
  }

  private unknownPath(found: Exclude<Matching, { kind: "match" }>, path: string): PlayedAnswer {
    if (found.kind === "method") {
      const allow = found.allowed.join(", ");
      return refusal(405, "Wrong method", { detail: `${path} accepts ${allow}.`, more: { headers: { allow } } });
    }
    const paths = this.contract.operations.map((operation) => operation.path);
    const near = nearest(path, paths)[0];
    const hint = near === undefined ? "" : ` The closest is ${near}.`;
    return refusal(404, "The path is not in the contract", {
      detail: `${this.contract.name} has no ${path}.${hint}`,
      more: {},
    });
  }

  private unauthorized(operation: RestOperation, label: string, missing: string): PlayedAnswer {
    const misfits: Misfit[] = [{ in: "header", name: "auth", message: missing }];
    const declared = operation.responses.find(({ status }) => status === "401");
    const shown = `${label} ${missing}.`;
    if (!declared) return refusal(401, "No credential", { detail: shown, more: { operation: label, misfits } });
    const known = new Map<string, unknown>(["detail", "message"].map((name) => [name, shown]));
    return { ...this.declared(declared, 401, { operation, label, known, seedParts: [label] }), misfits };
  }

  /** Runs the operation. */
  private perform({ operation, pathValues }: MatchedOperation, asked: Asked): PlayedAnswer {
    const { override, label, url, body } = asked;
    const query = [...url.searchParams].sort();
    const seedParts = [operation.method, operation.path, [...pathValues], query, body ?? null];
    const known = knownValues(operation, pathValues, body);
    const base = {
      operation,
      label,
      known,
      seedParts,
      accept: asked.accept,
      example: override.example,
      items: override.items,
    };
    const response =
      operation.responses.find((each) => each.status.startsWith("2")) ??
      operation.responses.find((each) => each.status === "default");
    const isExact = response !== undefined && /^\d+$/.test(response.status);
    const status = isExact ? Number(response.status) : 200;
    if (override.status !== undefined && override.status !== status) {
      const declared = responseFor(operation, override.status);
      if (declared) return this.declared(declared, override.status, base);
      const detail = `Set by the request; ${label} documents ${operation.responses.map(({ status }) => status).join(", ")}.`;
      return { ...refusal(override.status, "Set by an override", { detail, more: { operation: label } }), misfits: [] };
    }
    const deed = override.example === undefined ? this.deeds.get(operation) : undefined;
    const done = deed && this.act(deed, asked, pathValues);
    if (done?.kind === "gone") {
      const declared = responseFor(operation, 404);
      const detail = `There is no ${asked.path}. It was removed or never created.`;
      if (!declared) return { ...refusal(404, "Not found", { detail, more: { operation: label } }), misfits: [] };
      return this.declared(declared, 404, {
        ...base,
        known: new Map([
          ["detail", detail],
          ["message", detail],
        ]),
      });
    }
    if (!response) return played(new Response(null, { status: 204 }), label, "");
    const slots = done?.kind === "thing" ? { facts: done.facts, thing: deed } : {};
    const listed = done?.kind === "list" ? { list: done, url, items: override.items } : {};
    const location =
      deed?.kind === "create" && done?.kind === "thing"
        ? `${url.pathname}/${encodeURIComponent(wellFormed(done.id))}`
        : undefined;
    return this.declared(response, status, { ...base, ...slots, ...listed, location });
  }

  private act(deed: Deed, asked: Asked, pathValues: ReadonlyMap<string, string>) {
    const { thing } = deed;
    const id = deed.id === undefined ? undefined : (pathValues.get(deed.id) ?? "");
    const shelf = id === undefined ? asked.path : asked.path.slice(0, asked.path.lastIndexOf("/"));
    return this.things.act(deed.kind, {
      shelf: shelf.replace(/\/$/, ""),
      id,
      idName: deed.id,
      body: isData(asked.body) ? asked.body : {},
      type: thing?.type,
      seed: [this.options.seed, this.contract.name],
      count: usualItems,
      filters: [...asked.url.searchParams],
    });
  }

  /** A declared response, with known values in their places. */
  private declared(response: DeclaredResponse, status: number, asked: Given): PlayedAnswer {
    // A failure with a status in its body has its own status there. If that is not valid, any value is used.
    const given =
      status < 400
        ? asked
        : { ...asked, known: new Map([...asked.known, ["status", status]]), usual: problemFields(status, asked.label) };
    const { label, accept = "" } = given;
    const wanted = accept.split(",").map((each) => each.split(";")[0]?.trim().toLowerCase() ?? "");
    const acceptable = response.contents.filter(({ mediaType }) => wanted.includes(mediaType.toLowerCase()));
    const content = preferredContent(acceptable.length > 0 ? acceptable : response.contents);
    const headers = this.headers(response, given);
    if (!content || status === 204 || status === 304) {
      const isEmpty = content !== undefined || response.status !== "default";
      const code = isEmpty ? status : status === 200 ? 204 : status;
      return played(new Response(null, { status: code, headers }), label, "");
    }
    setHeader(headers, "content-type", content.mediaType.includes("*") ? "application/json" : content.mediaType);
    const { value, faults, more } = this.value(content, given);
    for (const [name, text] of more) setHeader(headers, name, text);
    const single = content.form !== "json" && typeof value === "string" ? value : JSON.stringify(value ?? null);
    const text = isStream(content.form) ? streamText(content.form, this.streamItems(content, value, given)) : single;
    return { ...played(new Response(text, { status, headers }), label, text), faults };
  }

  private value(
    content: Content,
    given: Given,
  ): { value: unknown; faults: readonly string[]; more: readonly (readonly [string, string])[] } {
    const fits = (value: unknown): boolean => this.complaints(content, value).length === 0;
    const { facts, list, thing } = given;
    const more: [string, string][] = [];
    const tried: (() => unknown)[] = [];
    if (facts && thing) tried.push(() => this.aboutOne(content.type, facts, given));
    if (list && content.form === "json")
      tried.push(() => {
        const page = pageOf(this.aboutMany(content.type, list.things, given), {
          type: content.type,
          types: this.contract.types,
          url: given.url ?? new URL("http://localhost"),
          operation: given.operation,
          most: given.items,
        });
        for (const [name, text] of page.headers) more.push([name, text]);
        return page.value;
      });
    if (given.known.size === 0 || given.example !== undefined || !facts)
      tried.push(() => this.fromExample(content, given));
    tried.push(() => sampleAnswer(content.type, lastSegment(given.operation), this.contextFor(given)));
    let first: unknown;
    for (const attempt of tried) {
      const value = attempt();
      if (value === undefined) continue;
      first ??= value;
      if (content.form !== "json" || isStream(content.form) || fits(value)) return { value, faults: [], more };
    }
    return { value: first, faults: this.complaints(content, first), more: [] };
  }

  private complaints(content: Content, value: unknown): readonly string[] {
    return this.answers.check(content.schema, value, false);
  }

  /** The contract's own example, with the values of the request in it. */
  private fromExample(content: Content, { example, known }: Given): unknown {
    const found = contentExample(this.raw, content, example);
    if (!isData(found) || example !== undefined) return found;
    const told = [...known].filter(([name]) => Object.hasOwn(found, name));
    return { ...found, ...Object.fromEntries(told) };
  }

  private aboutOne(type: Reference, facts: Readonly<Record<string, unknown>>, given: Given): unknown {
    const slot = thingSlot(type, this.contract.types);
    if (!slot) return undefined;
    const known = new Map(Object.entries(facts));
    const sample = (of: Reference): unknown =>
      sampleAnswer(of, "", {
        ...this.contextFor({ ...given, seedParts: [facts["id"] ?? facts] }),
        known,
        isWhole: "all",
      });
    const value = sample(slot.type);
    const [field] = slot.path;
    if (field === undefined) return value;
    const around = sampleAnswer(type, "", this.contextFor(given));
    return isData(around) ? { ...around, [field]: value } : undefined;
  }

  /** The response with all items of a collection, from which a page is cut later. */
  private aboutMany(type: Reference, things: readonly Readonly<Record<string, unknown>>[], given: Given): unknown {
    const slot = listSlot(type, this.contract.types);
    if (!slot) return undefined;
    const items = things.map((facts) =>
      sampleAnswer(slot.type, "", {
        ...this.contextFor({ ...given, seedParts: [facts] }),
        known: new Map(Object.entries(facts)),
        isWhole: "all",
        isRepeated: true,
      }),
    );
    const [field] = slot.path;
    if (field === undefined) return items;
    const around = sampleAnswer(type, "", this.contextFor(given));
    return isData(around) ? { ...around, [field]: items } : undefined;
  }

  private streamItems(content: Content, first: unknown, given: Given): unknown[] {
    const later = (item: number): unknown =>
      sampleAnswer(content.type, "", this.contextFor({ ...given, seedParts: [...given.seedParts, item] })) ?? null;
    return [first, ...Array.from({ length: Math.max(0, (given.items ?? 3) - 1) }, (_, at) => later(at + 1))];
  }

  private headers({ headers: declared }: DeclaredResponse, given: Given): Headers {
    const headers = new Headers();
    if (given.location !== undefined) setHeader(headers, "location", given.location);
    for (const { name, type } of declared) {
      if (!isHeaderName(name) || headers.has(name) || /^(?:content-type|link)$/i.test(name)) continue;
      const value = sampleAnswer(type, name, this.contextFor({ ...given, known: new Map() }));
      if (["string", "number", "boolean"].includes(typeof value)) setHeader(headers, name, String(value));
    }
    return headers;
  }

  private contextFor({ known, seedParts, usual }: Pick<Given, "known" | "seedParts" | "usual">): SampleContext {
    const context = { ...this.context([this.options.seed, this.contract.name, ...seedParts]), known };
    return usual ? { ...context, usual } : context;
  }

  private context(seed: readonly unknown[]): SampleContext {
    const fake: Fake = seededFaker(...seed);
    const fits = (place: Place, value: unknown): boolean =>
      "pointer" in place && this.answers.check({ ...place, pointer: place.pointer }, value, false).length === 0;
    return { types: this.contract.types, fake, budget: new SampleBudget(), known: new Map(), fits, depth: 0 };
  }
}

/** Whether a name is valid for a header (RFC 9110, section 5.6.2). A contract can contain any name. */
function isHeaderName(name: string): boolean {
  return /^[\w!#$%&'*+.^`|~-]+$/.test(name);
}

/** Sets a header. Characters that are not valid in it are percent-encoded as in an address (RFC 3986, section 2.1). */
function setHeader(headers: Headers, name: string, value: string): void {
  headers.set(name, wellFormed(value).replace(/[^\x20-\x7e]+/g, encodeURIComponent));
}

/** A text in which replacement characters stand for halves of characters. */
function wellFormed(text: string): string {
  return Buffer.from(text).toString();
}

/** The content of a request, after it was found valid. */
interface Asked {
  readonly url: URL;
  readonly path: string;
  readonly accept: string;
  readonly body: unknown;
  readonly override: Override;
  readonly label: string;
}

/** The input of a response. */
interface Given {
  readonly operation: RestOperation;
  readonly label: string;
  readonly known: ReadonlyMap<string, unknown>;
  readonly seedParts: readonly unknown[];
  /** The default values of fields with these names. */
  readonly usual?: ReadonlyMap<string, unknown>;
  readonly accept?: string;
  readonly example?: string | undefined;
  readonly facts?: Readonly<Record<string, unknown>>;
  readonly thing?: Deed | undefined;
  readonly list?: { readonly things: readonly Readonly<Record<string, unknown>>[] };
  readonly url?: URL;
  readonly items?: number | undefined;
  readonly location?: string | undefined;
}

/** The values of problem details' fields (RFC 9457, section 3.1). */
function problemFields(status: number, label: string): ReadonlyMap<string, unknown> {
  const words = STATUS_CODES[status] ?? (status < 500 ? "Refused" : "Failed");
  const title = words.charAt(0) + words.slice(1).toLowerCase();
  return new Map<string, unknown>([
    ["type", "about:blank"],
    ["title", title],
    ["detail", `The stand-in server responds to ${label} with ${String(status)}.`],
    ["message", `${title}.`],
    ["error", title],
  ]);
}

function played(response: Response, operation: string | undefined, sent: string): PlayedAnswer {
  return { response, operation, misfits: [], faults: [], sent };
}

function refusal(
  status: number,
  title: string,
  {
    detail,
    more,
  }: {
    readonly detail: string;
    readonly more: {
      readonly operation?: string;
      readonly misfits?: readonly Misfit[];
      readonly headers?: Readonly<Record<string, string>>;
    };
  },
): PlayedAnswer {
  const { operation, misfits = [], headers = {} } = more;
  const body = { type: "about:blank", title, status, detail, ...(misfits.length > 0 ? { errors: misfits } : {}) };
  const sent = JSON.stringify(body);
  // These statuses have no body (RFC 9110, section 6.4.1).
  const isBare = status === 204 || status === 205 || status === 304;
  const response = new Response(isBare ? null : sent, {
    status,
    headers: { "content-type": "application/problem+json", ...headers },
  });
  const told = misfits.length > 0 ? misfits : [{ in: "path" as const, name: "request", message: detail }];
  return { response, operation, misfits: told, faults: [], sent: isBare ? "" : sent };
}

function misfitText(misfits: readonly Misfit[]): string {
  return misfits
    .map(({ in: where, name, message }) =>
      where === "body" ? `The body ${message}.` : `The ${where} parameter ${name} ${message}.`,
    )
    .join(" ");
}

function lastSegment({ path }: RestOperation): string {
  return path.split("/").pop() ?? "";
}

/** A few items in the form of their stream, which ends after the last. */
function streamText(form: StreamForm, items: readonly unknown[]): string {
  const [before, after] = { lines: ["", "\n"], sequence: ["\u001e", "\n"], events: ["data: ", "\n\n"] }[form];
  return items.map((item) => (before ?? "") + JSON.stringify(item) + (after ?? "")).join("");
}

/**
 * The values that the response must agree with: path parameters under their own name and as `id`, and the body of the
 * request.
 */
function knownValues(
  operation: RestOperation,
  pathValues: ReadonlyMap<string, string>,
  body: unknown,
): Map<string, unknown> {
  const known = new Map<string, unknown>(pathValues);
  const last = [...operation.path.matchAll(/\{([^{}]+)\}/g)].pop()?.[1];
  const endsWithIt = last !== undefined && operation.path.endsWith(`{${last}}`);
  if (endsWithIt) known.set("id", pathValues.get(last));
  if (isData(body)) for (const [name, value] of Object.entries(body)) if (value !== null) known.set(name, value);
  return known;
}
