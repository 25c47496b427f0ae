import { isStream, type RestContract, type RestOperation, type StreamForm } from "../core/contract/model.js";
import type { Place } from "../core/problem/place.js";
import { nearest } from "../core/text/nearest.js";
import { preferredContent } from "../core/sdk/planContent.js";
import { isData } from "../core/text/parseData.js";
import { contractValidator, type ContractValidator } from "./ajvForContract.js";
import { checkRequest, type Misfit } from "./checkRequest.js";
import { operationMatcher, type MatchedOperation } from "./matchOperation.js";
import { sampleAnswer } from "./sampleAnswer.js";
import { seededFaker, type Fake } from "./seededFaker.js";

/** A handler that plays a REST contract for paths below its mount point. */
export type PlayRest = (request: Request, path: string) => Promise<Response>;

/**
 * Plays a REST contract: every request is held against it and refused with the reason when it does not fit; else the
 * declared success is answered with data of its shape, the same for the same seed and request.
 *
 * @param raw the parsed contract document, which Ajv judges requests by
 */
export function playRest(contract: RestContract, raw: unknown, seed: number): PlayRest {
  const match = operationMatcher(contract.operations);
  const validator = contractValidator(raw, contract.dialect, "request");
  const answers = contractValidator(raw, contract.dialect, "answer");
  const credentials = new Set(
    [...contract.authSchemes.values()].flatMap((scheme) =>
      scheme.kind === "key" && scheme.in === "query" ? [scheme.name] : [],
    ),
  );
  return async (request, path) => {
    const found = match(request.method, path);
    if (found.kind === "none") {
      const near = nearest(
        path,
        contract.operations.map((operation) => operation.path),
      )[0];
      return problemResponse(
        404,
        "No such path in the contract",
        `${contract.name} has no ${path}.${near === undefined ? "" : ` The nearest is ${near}.`}`,
      );
    }
    if (found.kind === "method")
      return problemResponse(405, "Wrong method", `${path} takes ${found.allowed.join(", ")}.`, [], {
        allow: found.allowed.join(", "),
      });
    const url = new URL(request.url);
    const checked = checkRequest(
      found.match,
      {
        query: url.search.slice(1),
        header: (name) => request.headers.get(name) ?? undefined,
        mediaType: request.headers.get("content-type") ?? undefined,
        body: await request.text(),
      },
      validator,
      { types: contract.types, credentials },
    );
    if (checked.misfits.length > 0) {
      const detail = checked.misfits
        .map(
          (misfit) =>
            `${misfit.in === "body" ? "The body" : `The ${misfit.in} parameter ${misfit.name}`} ${misfit.message}.`,
        )
        .join(" ");
      return problemResponse(400, "The request does not fit the contract", detail, checked.misfits);
    }
    const asked = { accept: request.headers.get("accept") ?? "", query: [...url.searchParams].sort() };
    return answer(contract, found.match, checked.body, seed, asked, answers);
  };
}

function problemResponse(
  status: number,
  title: string,
  detail: string,
  errors: readonly Misfit[] = [],
  headers: Record<string, string> = {},
): Response {
  const body = { type: "about:blank", title, status, detail, ...(errors.length > 0 ? { errors } : {}) };
  return new Response(JSON.stringify(body), {
    status,
    headers: { "content-type": "application/problem+json", ...headers },
  });
}

function answer(
  contract: RestContract,
  { operation, pathValues }: MatchedOperation,
  body: unknown,
  seed: number,
  { accept, query }: { readonly accept: string; readonly query: unknown },
  validator: ContractValidator,
): Response {
  const response =
    operation.responses.find((each) => each.status.startsWith("2")) ??
    operation.responses.find((each) => each.status === "default");
  const isExact = response !== undefined && /^\d+$/.test(response.status);
  const status = isExact ? Number(response.status) : 200;
  const wanted = accept.split(",").map((each) => each.split(";")[0]?.trim().toLowerCase() ?? "");
  const acceptable = response?.contents.filter(({ mediaType }) => wanted.includes(mediaType.toLowerCase())) ?? [];
  const content = response && preferredContent(acceptable.length > 0 ? acceptable : response.contents);
  if (!response || !content || status === 204) return new Response(null, { status: content || isExact ? status : 204 });
  const asked = [contract.name, operation.method, operation.path, [...pathValues], query, body ?? null];
  const fakeFor = (item: number): Fake => seededFaker(seed, ...asked, ...(item > 0 ? [item] : []));
  const context = {
    types: contract.types,
    fake: fakeFor(0),
    known: knownValues(operation, pathValues, body),
    fits: (place: Place, value: unknown) =>
      "pointer" in place && validator.check({ ...place, pointer: place.pointer }, value, false).length === 0,
    depth: 0,
  };
  const value = sampleAnswer(content.type, operation.path.split("/").pop() ?? "", context);
  const single = content.form !== "json" && typeof value === "string" ? value : JSON.stringify(value ?? null);
  const items = [
    value,
    ...[1, 2].map((more) => sampleAnswer(content.type, "", { ...context, fake: fakeFor(more) }) ?? null),
  ];
  const text = isStream(content.form) ? streamText(content.form, items) : single;
  return new Response(text, {
    status,
    headers: { "content-type": content.mediaType.includes("*") ? "application/json" : content.mediaType },
  });
}

/** A few items, as a stream of their form writes them; the stream ends after the last. */
function streamText(form: StreamForm, items: readonly unknown[]): string {
  const [before, after] = { lines: ["", "\n"], sequence: ["\u001e", "\n"], events: ["data: ", "\n\n"] }[form];
  return items.map((item) => (before ?? "") + JSON.stringify(item) + (after ?? "")).join("");
}

/** What the answer has to agree with: path parameters under their own name and as `id`, and the body that was sent. */
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
