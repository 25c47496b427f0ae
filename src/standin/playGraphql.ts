import {
  execute,
  getNamedType,
  getNullableType,
  getOperationAST,
  GraphQLError,
  isAbstractType,
  isEnumType,
  isLeafType,
  isListType,
  isNonNullType,
  isObjectType,
  OperationTypeNode,
  parse,
  Source,
  subscribe,
  validate,
  type DocumentNode,
  type ExecutionArgs,
  type ExecutionResult,
  type GraphQLFieldResolver,
  type GraphQLOutputType,
  type GraphQLSchema,
} from "graphql";
import { isData } from "../core/text/parseData.js";
import { sampleText } from "./sampleText.js";
import { seededFaker } from "./seededFaker.js";

export interface GraphqlPlayOptions {
  readonly seed: number;
  /** Milliseconds between two events of a subscription. */
  readonly eventEveryMs: number;
}

/** A handler that plays a GraphQL schema at one URL. */
export type PlayGraphql = (request: Request, readForm: () => Promise<FormData>) => Promise<Response>;

/** An object of the made-up graph: its key decides everything below it. */
interface Made {
  readonly __typename: string;
  readonly key: string;
  /** What is already known of it, for example the id it was asked by. */
  readonly known: Readonly<Record<string, unknown>>;
}

/**
 * Plays a GraphQL schema: documents are validated, answers have the schema's shape and are the same for the same seed
 * and query; subscriptions are served as server-sent events.
 */
export function playGraphql(schema: GraphQLSchema, { seed, eventEveryMs }: GraphqlPlayOptions): PlayGraphql {
  const fieldResolver = makeResolver(seed);
  return async (request, readForm) => {
    const asked = await readRequest(request, readForm);
    if ("error" in asked) return jsonResponse(400, { errors: [{ message: asked.error }] });
    const document = readDocument(schema, asked.query);
    if (Array.isArray(document)) return jsonResponse(400, { errors: document });
    const operation = getOperationAST(document, asked.operationName);
    if (!operation)
      return jsonResponse(400, { errors: [{ message: "The document holds no operation of that name." }] });
    const execution: ExecutionArgs = {
      schema,
      document,
      operationName: operation.name?.value,
      variableValues: asked.variables,
      fieldResolver,
      typeResolver: (value) => (value as Made).__typename,
    };
    if (operation.operation === OperationTypeNode.SUBSCRIPTION)
      return eventStream(execution, seed, eventEveryMs, request.signal);
    const result = await execute(execution);
    return jsonResponse(result.data === undefined ? 400 : 200, result);
  };
}

interface Asked {
  readonly query: string;
  readonly operationName?: string;
  readonly variables?: Readonly<Record<string, unknown>>;
}

/** Reads a request (GraphQL over HTTP, sections 5.3 and 5.4), also one that brings files as a multipart form. */
async function readRequest(
  request: Request,
  readForm: () => Promise<FormData>,
): Promise<Asked | { readonly error: string }> {
  let body: unknown;
  try {
    body = await bodyOf(request, readForm);
  } catch {
    return { error: "The request is not valid JSON." };
  }
  if (body === undefined) return { error: "Send the query with POST as JSON, or with GET." };
  if (!isData(body) || typeof body["query"] !== "string") return { error: "The body needs `query`, a text." };
  const { query, operationName, variables } = body;
  const isMutation = request.method === "GET" && /^\s*(?:#[^\n]*\n\s*)*mutation\b/.test(query);
  if (isMutation) return { error: "A mutation has to be sent with POST." };
  return {
    query,
    ...(typeof operationName === "string" ? { operationName } : {}),
    ...(isData(variables) ? { variables } : {}),
  };
}

async function bodyOf(request: Request, readForm: () => Promise<FormData>): Promise<unknown> {
  if (request.method === "GET") {
    const { query, variables, ...others } = Object.fromEntries(new URL(request.url).searchParams);
    if (query === undefined) return undefined;
    return { ...others, query, ...(variables === undefined ? {} : { variables: JSON.parse(variables) as unknown }) };
  }
  if (request.method !== "POST") return undefined;
  if (request.headers.get("content-type")?.startsWith("multipart/form-data") !== true) return request.json();
  const form = await readForm();
  const body: unknown = JSON.parse(textOf(form, "operations"));
  const map = JSON.parse(textOf(form, "map")) as Readonly<Record<string, readonly string[]>>;
  for (const [part, paths] of Object.entries(map))
    for (const path of paths) place(body, path.split("."), form.get(part));
  return body;
}

function textOf(form: FormData, name: string): string {
  const value = form.get(name);
  return typeof value === "string" ? value : "";
}

/** Puts a file where a form's map says it belongs; a path that leads nowhere is left alone. */
function place(value: unknown, [key = "", ...rest]: readonly string[], file: unknown): void {
  if (typeof value !== "object" || value === null || !Object.hasOwn(value, key)) return;
  const holder = value as Record<string, unknown>;
  if (rest.length === 0) holder[key] = file;
  else place(holder[key], rest, file);
}

function readDocument(schema: GraphQLSchema, query: string): DocumentNode | GraphQLError[] {
  try {
    const document = parse(new Source(query));
    const errors = validate(schema, document);
    return errors.length > 0 ? [...errors] : document;
  } catch (error) {
    if (error instanceof GraphQLError) return [error];
    throw error;
  }
}

function jsonResponse(status: number, result: object): Response {
  return new Response(JSON.stringify(result), {
    status,
    headers: { "content-type": "application/json; charset=utf-8" },
  });
}

function makeResolver(seed: number): GraphQLFieldResolver<unknown, unknown> {
  return (source, args: Record<string, unknown>, _context, info) => {
    const parent = (source ?? { __typename: info.parentType.name, key: "", known: {} }) as Made;
    if (Object.hasOwn(parent.known, info.fieldName)) return parent.known[info.fieldName];
    const key = `${parent.key}/${info.fieldName}${Object.keys(args).length > 0 ? JSON.stringify(args) : ""}`;
    const known = typeof args["id"] === "string" ? { id: args["id"] } : {};
    return makeValue(info.returnType, info.fieldName, key, { schema: info.schema, seed, known });
  };
}

interface MakeContext {
  readonly schema: GraphQLSchema;
  readonly seed: number;
  readonly known: Readonly<Record<string, unknown>>;
}

const nullOneIn = 6;

function makeValue(type: GraphQLOutputType, name: string, key: string, context: MakeContext): unknown {
  const fake = seededFaker(context.seed, key);
  if (
    !isNonNullType(type) &&
    Object.keys(context.known).length === 0 &&
    (/cursor/i.test(name) || fake.number.int({ min: 1, max: nullOneIn }) === 1)
  )
    return null;
  const solid = getNullableType(type) as GraphQLOutputType;
  if (isListType(solid)) {
    const length = fake.number.int({ min: 2, max: 3 });
    return Array.from({ length }, (_, at) =>
      makeValue(solid.ofType as GraphQLOutputType, name.replace(/s$/, ""), `${key}[${String(at)}]`, {
        ...context,
        known: {},
      }),
    );
  }
  if (isLeafType(solid)) return makeLeaf(solid, name, key, context);
  const named = getNamedType(solid);
  const possible = isAbstractType(named) ? context.schema.getPossibleTypes(named) : isObjectType(named) ? [named] : [];
  const chosen = fake.helpers.arrayElement(possible);
  return { __typename: chosen.name, key, known: context.known } satisfies Made;
}

function makeLeaf(type: GraphQLOutputType, name: string, key: string, { seed }: MakeContext): unknown {
  const fake = seededFaker(seed, key, "leaf");
  if (isEnumType(type)) return fake.helpers.arrayElement(type.getValues()).value as unknown;
  switch (getNamedType(type).name) {
    case "Int":
      return fake.number.int({ min: 1, max: 100 });
    case "Float":
      return Math.round(fake.number.float({ min: 1, max: 100 }) * 10) / 10;
    case "Boolean":
      return /hasNext|hasMore|hasPrevious/i.test(name) ? false : fake.datatype.boolean();
    case "ID":
      return sampleText("id", "id", {}, fake);
    case "String":
      return sampleText(name, undefined, {}, fake);
    default:
      return sampleScalar(getNamedType(type).name, name, fake);
  }
}

/** What a custom scalar holds can only be guessed by its name. */
function sampleScalar(scalar: string, name: string, fake: ReturnType<typeof seededFaker>): unknown {
  const format = /instant|datetime|timestamp/i.test(scalar)
    ? "date-time"
    : /^(day|.*date)$/i.test(scalar)
      ? "date"
      : /time/i.test(scalar)
        ? "time"
        : /ur[il]/i.test(scalar)
          ? "uri"
          : /uuid/i.test(scalar)
            ? "uuid"
            : undefined;
  return sampleText(name, format, {}, fake);
}

async function eventStream(
  execution: ExecutionArgs,
  seed: number,
  everyMs: number,
  signal: AbortSignal,
): Promise<Response> {
  async function* events(
    type: GraphQLOutputType,
    field: string,
    schema: GraphQLSchema,
  ): AsyncGenerator<Record<string, unknown>> {
    for (let number = 1; !signal.aborted; number++) {
      if (number > 1) await new Promise((resolve) => setTimeout(resolve, everyMs));
      yield { [field]: makeValue(type, field, `event ${String(number)}`, { schema, seed, known: {} }) };
    }
  }
  const inner = execution.fieldResolver;
  const result = await subscribe({
    ...execution,
    subscribeFieldResolver: (_source, _args, _context, info) => events(info.returnType, info.fieldName, info.schema),
    fieldResolver: (source, args: unknown, context, info) => {
      const isRoot = info.path.prev === undefined;
      return isRoot ? (source as Record<string, unknown>)[info.fieldName] : inner?.(source, args, context, info);
    },
  });
  if (!(Symbol.asyncIterator in result)) return jsonResponse(400, result);
  return new Response(toEventStream(result), {
    status: 200,
    headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
  });
}

function toEventStream(results: AsyncGenerator<ExecutionResult, void, void>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    async pull(controller) {
      const next = await results.next();
      if (next.done) {
        controller.enqueue(encoder.encode("event: complete\ndata: \n\n"));
        controller.close();
      } else controller.enqueue(encoder.encode(`event: next\ndata: ${JSON.stringify(next.value)}\n\n`));
    },
    async cancel() {
      await results.return();
    },
  });
}
