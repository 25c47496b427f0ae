import type { FoundCall } from "../../try/foundCall.js";
import type { Exchange, Performed, Performing } from "../../try/performing.js";
import { isFailureLike } from "./callFailure.js";
import { loadModules, modulesOf, runnableModules } from "./runnable.js";

const itemsOfStream = 5;
const timeoutMs = 30_000;

type Connect = (options: object) => object;
type Call = (connection: object, values: object) => unknown;

/**
 * Makes a call with the SDK's own code.
 *
 * @param how the connection and the arguments
 */
export async function perform(call: FoundCall, how: Performing): Promise<Performed> {
  const entries = modulesOf(call);
  const modules = runnableModules(call.files, entries);
  const names = entries.map((path) => path.replace(/\.ts$/, ".mjs"));
  const exported = await loadModules(modules, names, how.importer);
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
