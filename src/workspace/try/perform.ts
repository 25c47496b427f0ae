import { isFailureLike, type CallFailure } from "./callFailure.js";
import type { FoundCall } from "./findCall.js";
import { loadModules, runnableModules } from "./runnable.js";

/** One exchange as it went over the wire. */
export interface Exchange {
  readonly method: string;
  readonly url: string;
  readonly headers: readonly (readonly [string, string])[];
  /** Text that was sent; what is no text is described. */
  readonly body: string | undefined;
  /** Undefined when no answer came. */
  readonly status: number | undefined;
  readonly answerType: string | undefined;
}

export interface Performed {
  readonly exchanges: readonly Exchange[];
  readonly elapsedMs: number;
  readonly outcome:
    | { readonly ok: true; readonly answer: unknown; readonly isCut: boolean }
    | { readonly ok: false; readonly failure: CallFailure };
}

export interface Performing {
  readonly baseUrl: string;
  readonly fetch: (request: Request) => Promise<Response>;
  readonly auth: Readonly<Record<string, string>>;
  readonly headers: Readonly<Record<string, string>>;
  readonly standing: Readonly<Record<string, unknown>>;
  readonly values: Readonly<Record<string, unknown>>;
}

const itemsOfStream = 5;
const timeoutMs = 30_000;

type Connect = (options: object) => object;
type Call = (connection: object, values: object) => unknown;

/** Performs a call with the very code that the SDK has for it. */
export async function perform(call: FoundCall, how: Performing): Promise<Performed> {
  const connectFile = `${call.contract}/connect.ts`;
  const modules = runnableModules(call.files, [call.file, connectFile]);
  const names = [call.file, connectFile].map((path) => path.replace(/\.ts$/, ".mjs"));
  const exported = await loadModules(modules, names);
  const exchanges: Exchange[] = [];
  const watched: typeof fetch = async (input, init) => {
    const request = new Request(input, init);
    const sent = describe(request.clone(), init?.body);
    const entry = { ...(await sent), status: undefined, answerType: undefined };
    exchanges.push(entry);
    const response = await how.fetch(request);
    const answerType = response.headers.get("content-type") ?? undefined;
    exchanges[exchanges.indexOf(entry)] = { ...entry, status: response.status, answerType };
    return response;
  };
  const connection = (exported[call.connect] as Connect)({
    baseUrl: how.baseUrl,
    fetch: watched,
    headers: how.headers,
    timeoutMs,
    ...(call.credentials.length > 0 ? { auth: how.auth } : {}),
    ...(call.standing.length > 0 ? { standing: how.standing } : {}),
  });
  const startedAt = performance.now();
  try {
    const answered = await (exported[call.name] as Call)(connection, how.values);
    const { answer, isCut } = await collected(answered);
    return { exchanges, elapsedMs: performance.now() - startedAt, outcome: { ok: true, answer, isCut } };
  } catch (error) {
    if (!isFailureLike(error)) throw error;
    return { exchanges, elapsedMs: performance.now() - startedAt, outcome: { ok: false, failure: error } };
  }
}

async function describe(
  request: Request,
  body: unknown,
): Promise<Pick<Exchange, "method" | "url" | "headers" | "body">> {
  const type = request.headers.get("content-type") ?? "";
  const isText = body === undefined || body === null || typeof body === "string" || /json|text|urlencoded/.test(type);
  const text = isText ? await request.text() : `(${type === "" ? "bytes" : type})`;
  return {
    method: request.method,
    url: request.url,
    headers: [...request.headers],
    body: text === "" ? undefined : text,
  };
}

/** The first items of a stream; anything else as it is. */
async function collected(answered: unknown): Promise<{ answer: unknown; isCut: boolean }> {
  if (
    typeof answered !== "object" ||
    answered === null ||
    !(Symbol.asyncIterator in answered) ||
    answered instanceof ReadableStream
  )
    return { answer: answered, isCut: false };
  const items: unknown[] = [];
  for await (const item of answered as AsyncIterable<unknown>) {
    items.push(item);
    if (items.length === itemsOfStream) return { answer: items, isCut: true };
  }
  return { answer: items, isCut: false };
}
