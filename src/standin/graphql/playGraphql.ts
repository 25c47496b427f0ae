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
  isRequiredArgument,
  Kind,
  OperationTypeNode,
  parse,
  Source,
  subscribe,
  validate,
  type DocumentNode,
  type ExecutionArgs,
  type ExecutionResult,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLOutputType,
  type GraphQLSchema,
  type OperationDefinitionNode,
} from "graphql";
import type { Misfit } from "../rest/checkRequest.js";
import { Graph, poolSize, type Made } from "./graph.js";
import { takesEvents, wantedMedia, type GraphqlMedia } from "./graphqlMedia.js";
import type { PlayedAnswer } from "../playedAnswer.js";
import { scalarCheck } from "../samples/scalarFormats.js";
import type { SentBody } from "../rest/sentBody.js";
import { Shelves, type Facts } from "../shelves.js";
import { waitFor, overrideHeader, type Override, type Overrides } from "../override.js";
import { isData, type Data } from "../../core/text/parseData.js";
import { sampledName, sampleText } from "../samples/sampleText.js";
import { seededFaker } from "../samples/seededFaker.js";

export interface GraphqlPlayOptions {
  readonly seed: number;
  readonly overrides: Overrides;
  /** The items that were created, changed and removed so far. */
  readonly shelves?: Shelves;
  /** Milliseconds between two events of a subscription. */
  readonly eventEveryMs: number;
  /** The formats of scalars, by name. */
  readonly scalars?: ReadonlyMap<string, string> | undefined;
  /** The texts of the operations with an id. */
  readonly texts?: ReadonlyMap<string, string> | undefined;
}

/** A handler that serves a GraphQL schema at one URL. */
export type PlayGraphql = (request: Request, body: SentBody) => Promise<PlayedAnswer>;

/** The number of parsed and validated documents that are cached. Apps send the same few again and again. */
const keptDocuments = 500;

/**
 * Serves a GraphQL schema. Documents are validated. Responses have the schema's shape and are the same for the same
 * seed and query. Entities stay as mutations leave them. Subscriptions use server-sent events.
 *
 * @returns the handler
 */
export function playGraphql(schema: GraphQLSchema, options: GraphqlPlayOptions): PlayGraphql {
  const documents = new Map<string, DocumentNode | GraphQLError[]>();
  const check = scalarCheck(schema, options.scalars ?? new Map());
  const execution = graphExecution(schema, options);
  const documentOf = (query: string): DocumentNode | GraphQLError[] => {
    const known = documents.get(query) ?? readDocument(schema, query);
    documents.set(query, known);
    const [oldest] = documents.keys();
    if (documents.size > keptDocuments && oldest !== undefined) documents.delete(oldest);
    return known;
  };
  return async (request, body) => {
    const accept = request.headers.get("accept");
    const media = wantedMedia(accept);
    if (media === undefined)
      return refused([{ message: `The response is JSON or events, but \`${String(accept)}\` accepts neither.` }], {
        status: 406,
      });
    const asked = await readRequest(request, body, options.texts);
    if ("error" in asked) return refused([{ message: asked.error }], { ...asked, media });
    return { ...(await answer(request, asked, media)), received: JSON.stringify(asked) };
  };

  async function answer(request: Request, asked: Asked, media: GraphqlMedia): Promise<PlayedAnswer> {
    // A client that only accepts plain JSON may recognise a response only by its status (GraphQL over HTTP, section
    // 6.4.1).
    const status = media === "application/json" ? 200 : 400;
    const document = documentOf(asked.query);
    if (Array.isArray(document)) return refused(document, { status, media });
    const operation = getOperationAST(document, asked.operationName);
    if (!operation)
      return refused([{ message: "The document contains no operation with that name." }], { status, media });
    const label = operationName(operation);
    if (operation.operation === OperationTypeNode.MUTATION && request.method !== "POST") {
      const message = "A mutation must be sent with POST.";
      return refused([{ message }], { status: 405, media, operation: label, headers: { allow: "POST" } });
    }
    const odd = check(document, asked.variables ?? {});
    if (odd.length > 0)
      return refused(
        odd.map((message) => ({ message })),
        { status, media, operation: label },
      );
    const override = options.overrides.for(
      [operation.name?.value, ...rootFields(operation)],
      request.headers.get(overrideHeader),
    );
    if (typeof override === "string") return refused([{ message: `${override}.` }], { media, operation: label });
    await waitFor(override);
    if (override.status !== undefined && override.status !== 200) {
      const message = `An override makes ${label} fail with status ${String(override.status)}.`;
      return answered({ errors: [{ message }], data: null }, { status: override.status, media, operation: label });
    }
    const args = {
      ...execution(override),
      document,
      operationName: operation.name?.value,
      variableValues: asked.variables,
    };
    const told = { status, media, operation: label };
    if (operation.operation === OperationTypeNode.SUBSCRIPTION) {
      if (!takesEvents(request.headers.get("accept")))
        return refused([{ message: "A subscription responds with text/event-stream." }], { ...told, status: 406 });
      const events = await subscribe(args);
      if (!(Symbol.asyncIterator in events)) return answered(events, told);
      return inEvents(untilAborted(events, request.signal), label);
    }
    const result = await execute(args);
    if (media === "text/event-stream" && result.data !== undefined) return inEvents(once(result), label);
    return answered(result, { ...told, status: result.data === undefined ? status : 200 });
  }
}

/** Returns a function that runs one subscription of a schema, for another transport. */
export function subscribeGraphql(
  schema: GraphQLSchema,
  options: GraphqlPlayOptions,
): (asked: Asked) => Promise<AsyncGenerator<ExecutionResult, void, void> | ExecutionResult> {
  const execution = graphExecution(schema, options);
  const check = scalarCheck(schema, options.scalars ?? new Map());
  return async (asked) => {
    const document = readDocument(schema, asked.query);
    if (Array.isArray(document)) return { errors: document };
    const odd = check(document, asked.variables ?? {});
    if (odd.length > 0) return { errors: odd.map((message) => new GraphQLError(message)) };
    const operation = getOperationAST(document, asked.operationName);
    if (!operation) return { errors: [new GraphQLError("The document contains no operation with that name.")] };
    const args = { ...execution({}), document, operationName: operation.name?.value, variableValues: asked.variables };
    return operation.operation === OperationTypeNode.SUBSCRIPTION ? subscribe(args) : execute(args);
  };
}

function operationName(operation: OperationDefinitionNode): string {
  return `${operation.operation} ${operation.name?.value ?? rootFields(operation).join(", ")}`;
}

function rootFields({ selectionSet }: OperationDefinitionNode): string[] {
  return selectionSet.selections.flatMap((each) => (each.kind === Kind.FIELD ? [each.name.value] : []));
}

/** How a response is sent. Default: 400 as plain JSON. */
interface Telling {
  readonly status?: number;
  readonly media?: GraphqlMedia;
  readonly operation?: string;
  readonly headers?: Readonly<Record<string, string>>;
}

function refused(errors: readonly { readonly message: string }[], how: Telling): PlayedAnswer {
  const misfits: Misfit[] = errors.map(({ message }) => ({ in: "body", name: "query", message }));
  return { ...answered({ errors }, how), misfits };
}

/** A stream of results, as server-sent events. */
function inEvents(results: AsyncGenerator<ExecutionResult, void, void>, operation: string): PlayedAnswer {
  const headers = { "content-type": "text/event-stream", "cache-control": "no-store" };
  const response = new Response(toEventStream(results), { status: 200, headers });
  return { response, operation, misfits: [], faults: [], sent: "(events)" };
}

async function* once(result: ExecutionResult): AsyncGenerator<ExecutionResult, void, void> {
  yield await Promise.resolve(result);
}

function answered(result: object, { status = 400, media, operation, headers: own }: Telling): PlayedAnswer {
  const sent = JSON.stringify(result);
  // A refusal is not a stream, even if the request wanted one.
  const type = media === "application/graphql-response+json" ? media : "application/json";
  const headers = { "content-type": `${type}; charset=utf-8`, ...own };
  return { response: new Response(sent, { status, headers }), operation, misfits: [], faults: [], sent };
}

/** The content of a request (GraphQL over HTTP, section 5.2). */
export interface Asked {
  readonly query: string;
  readonly operationName?: string;
  readonly variables?: Readonly<Record<string, unknown>>;
}

/** A request without a query. */
interface Unread {
  readonly error: string;
  readonly status?: number;
  readonly headers?: Readonly<Record<string, string>>;
}

/** Whether a body is JSON in a Unicode encoding, or a form with files. */
function isReadable(type: string | null): boolean {
  return type !== null && /^\s*(?:application\/(?:[\w.+-]+\+)?json|multipart\/form-data)\s*(?:;|$)/i.test(type);
}

/** Reads a request (GraphQL over HTTP, sections 5.3 and 5.4), also one with files in a multipart form. */
async function readRequest(
  request: Request,
  sent: SentBody,
  texts: ReadonlyMap<string, string> | undefined,
): Promise<Asked | Unread> {
  if (request.method !== "GET" && request.method !== "POST")
    return { error: "Send the query with POST as JSON, or with GET.", status: 405, headers: { allow: "GET, POST" } };
  if (request.method === "POST" && !isReadable(request.headers.get("content-type")))
    return { error: "A query must be sent as application/json.", status: 415 };
  let body: unknown;
  try {
    body = await bodyOf(request, sent);
  } catch {
    return { error: "The request is not valid JSON." };
  }
  if (body === undefined) return { error: "Send the query with POST as JSON, or with GET." };
  return isData(body) ? readAsked(body, texts) : { error: "The body must have a string `query`." };
}

/**
 * Reads the content of a body.
 *
 * @param texts the texts of the operations with an id
 * @returns the content, or the error
 */
export function readAsked(
  { query: said, documentId, operationName, variables, extensions }: Data,
  texts: ReadonlyMap<string, string> | undefined,
): Asked | { readonly error: string } {
  const isAbsent = (value: unknown): boolean => value === undefined || value === null;
  if (!isAbsent(operationName) && typeof operationName !== "string")
    return { error: "`operationName` must be a string." };
  if (!isAbsent(variables) && !isData(variables)) return { error: "`variables` must be an object." };
  if (!isAbsent(extensions) && !isData(extensions)) return { error: "`extensions` must be an object." };
  const query = said ?? (typeof documentId === "string" ? texts?.get(documentId) : undefined);
  if (query === undefined && typeof documentId === "string")
    return {
      error: `No operation of this project has the id ${documentId.slice(0, 80)}. Ids are those of an SDK with the setting \`manifest\`. Run \`rhema generate\` after a query was changed.`,
    };
  if (typeof query !== "string") return { error: "The body must have a string `query`." };
  return {
    query,
    ...(typeof operationName === "string" ? { operationName } : {}),
    ...(isData(variables) ? { variables } : {}),
  };
}

async function bodyOf(request: Request, sent: SentBody): Promise<unknown> {
  if (request.method === "GET") {
    const { query, variables, extensions, ...others } = Object.fromEntries(new URL(request.url).searchParams);
    if (query === undefined && others["documentId"] === undefined) return undefined;
    const parsed = (text: string | undefined): unknown => (text === undefined ? undefined : JSON.parse(text));
    return { ...others, query, variables: parsed(variables), extensions: parsed(extensions) };
  }
  if (request.method !== "POST") return undefined;
  if (request.headers.get("content-type")?.startsWith("multipart/form-data") !== true)
    return JSON.parse(await sent.text()) as unknown;
  const form = await sent.form();
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

/** Sets a file at the path in a form's map. A path that does not resolve is ignored. */
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

/** The parts that are the same in all executions: how fields are resolved, and the events of subscriptions. */
function graphExecution(
  schema: GraphQLSchema,
  { seed, eventEveryMs, shelves, scalars = new Map() }: GraphqlPlayOptions,
): (override: Override) => Omit<ExecutionArgs, "document"> {
  const graph = new Graph(schema, seed, shelves ?? new Shelves());
  return (override) => {
    const context: MakeContext = { schema, seed, graph, scalars, items: override.items };
    return {
      schema,
      typeResolver: (value) => (value as Made).__typename,
      fieldResolver: (source, args: Facts, _context, info) =>
        resolveField((source ?? root(info.parentType.name)) as Made, info.fieldName, {
          args,
          type: info.parentType,
          context,
        }),
      subscribeFieldResolver: (_source, args: Facts, _context, { parentType, fieldName }) =>
        events(fieldName, args, { parent: parentType, context, everyMs: eventEveryMs }),
    };
  };
}

function root(typeName: string): Made {
  return { __typename: typeName, key: "", known: {} };
}

async function* events(
  name: string,
  args: Facts,
  {
    parent,
    context,
    everyMs,
  }: { readonly parent: GraphQLObjectType; readonly context: MakeContext; readonly everyMs: number },
): AsyncGenerator<Made> {
  const field = parent.getFields()[name];
  for (let number = 1; field; number++) {
    if (number > 1) await new Promise((resolve) => setTimeout(resolve, everyMs));
    const named = getNamedType(field.type);
    const key = `event ${String(number)}`;
    const entity = context.graph.isEntity(named)
      ? (matching(context.graph.all(named), args, context)[number - 1] ?? context.graph.some(named, key))
      : undefined;
    yield {
      ...root(parent.name),
      key,
      known: { [name]: entity ?? makeValue(field.type, name, { key, known: {}, context }) },
    };
  }
}

interface MakeContext {
  /** The formats of scalars, by name. */
  readonly scalars: ReadonlyMap<string, string>;
  readonly schema: GraphQLSchema;
  readonly seed: number;
  readonly graph: Graph;
  /** The number of items in lists, if an override sets it. */
  readonly items: number | undefined;
  /** The number of nested lists around a value. */
  readonly lists?: number;
}

const nullOneIn = 6;
const outerLists = 3;
const deepestList = 20;

/** The value of an object's field: a known one, otherwise one from the graph, otherwise a made-up one. */
function resolveField(
  parent: Made,
  name: string,
  { args, type, context }: { readonly args: Facts; readonly type: GraphQLObjectType; readonly context: MakeContext },
): unknown {
  if (Object.hasOwn(parent.known, name)) return parent.known[name];
  const field = type.getFields()[name];
  if (!field) return null;
  const { graph, schema } = context;
  const key = `${parent.key}/${name}${Object.keys(args).length > 0 ? JSON.stringify(args) : ""}`;
  const named = getNamedType(field.type);
  if (type === schema.getMutationType()) {
    const made = graph.mutate(name, field.type, { args, key });
    if (made || graph.targetOf(named, name)) return mutated(made, field.type, { name, key, context });
  }
  const isRoot = type === schema.getQueryType();
  const nullable = getNullableType(field.type) as GraphQLOutputType;
  if (isListType(nullable) && graph.isEntity(named)) return entityList(named, args, { key, isRoot, context });
  if (isConnection(nullable)) return connection(nullable, args, { key, isRoot, context });
  const id = args["id"] ?? args[`${named.name.charAt(0).toLowerCase()}${named.name.slice(1)}Id`];
  if (graph.isEntity(named) && typeof id === "string") return graph.one(named, id) ?? null;
  const said = sampledName(name, () => Object.values(type.getFields()));
  return makeValue(field.type, said, { key, known: typeof id === "string" ? { id } : {}, context });
}

/** The response of a mutation: the entity itself, its id, true, or an object around it. */
function mutated(
  made: Made | undefined,
  type: GraphQLOutputType,
  { name, key, context }: { readonly name: string; readonly key: string; readonly context: MakeContext },
): unknown {
  const named = getNamedType(type);
  if (context.graph.isEntity(named)) return made ?? null;
  if (named.name === "Boolean") return made !== undefined;
  if (named.name === "ID" && made) return made.known["id"];
  if (!isObjectType(named)) return makeValue(type, name, { key, known: {}, context });
  const known: Record<string, unknown> = {};
  for (const field of Object.values(named.getFields())) {
    const inner = getNamedType(field.type);
    const isList = isListType(getNullableType(field.type));
    if (!isList && made && isEntityOf(inner, made, context)) known[field.name] = made;
    else if (/^(ok|success|successful|done)$/i.test(field.name) && inner.name === "Boolean")
      known[field.name] = made !== undefined;
    else if (/error|problem/i.test(field.name)) known[field.name] = isList ? [] : null;
    else if (/^(deleted|removed)?id$/i.test(field.name) && made) known[field.name] = made.known["id"];
  }
  return { __typename: named.name, key, known } satisfies Made;
}

function isEntityOf(type: GraphQLNamedType, { __typename }: Made, { schema }: MakeContext): boolean {
  return (
    type.name === __typename ||
    (isAbstractType(type) && schema.getPossibleTypes(type).some(({ name }) => name === __typename))
  );
}

const nestedItems = 3;

/** A list of entities: all of them at the root, a few elsewhere, limited by the arguments. */
function entityList(
  type: GraphQLNamedType,
  args: Facts,
  { key, isRoot, context }: { readonly key: string; readonly isRoot: boolean; readonly context: MakeContext },
): readonly Made[] {
  const found = entities(type, args, { key, isRoot, context });
  const start = numberArgument(args, /^(offset|skip)$/i) ?? 0;
  const count = numberArgument(args, /^(first|limit|take|top|last|count)$/i) ?? found.length;
  return found.slice(start, start + count);
}

function entities(
  type: GraphQLNamedType,
  args: Facts,
  { key, isRoot, context }: { readonly key: string; readonly isRoot: boolean; readonly context: MakeContext },
): readonly Made[] {
  const { graph, items, seed } = context;
  const all = graph.all(type);
  if (items !== undefined) return Array.from({ length: items }, (_, at) => all[at % all.length] ?? []).flat();
  if (!isRoot) {
    const from = seededFaker(seed, key).number.int({ min: 0, max: Math.max(0, all.length - 1) });
    return [...all.slice(from), ...all.slice(0, from)].slice(0, nestedItems);
  }
  const found = matching(all, args, context);
  if (found.length > 0 || all.length === 0) return found;
  // No entity has such a value by chance. A list that is filtered by it should show some.
  graph.make(type, filtersOf(args, true), `${key} 1`);
  graph.make(type, filtersOf(args, true), `${key} 2`);
  return matching(graph.all(type), args, context);
}

/** The entities whose fields have the values of arguments with the same name. */
function matching(all: readonly Made[], args: Facts, context: MakeContext): Made[] {
  const filters = Object.entries(filtersOf(args, false));
  if (filters.length === 0) return [...all];
  return all.filter((made) => {
    const type = context.schema.getType(made.__typename);
    return filters.every(([name, wanted]) => {
      const field = isObjectType(type) ? type.getFields()[name] : undefined;
      if (!isObjectType(type) || !field || field.args.some(isRequiredArgument)) return true;
      const value = resolveField(made, name, { args: {}, type, context });
      const plain = isMade(value) ? value.known["id"] : value;
      return Array.isArray(wanted) ? wanted.includes(plain) : plain === wanted;
    });
  });
}

function isMade(value: unknown): value is Made {
  return isData(value) && typeof value["__typename"] === "string" && isData(value["known"]);
}

const pagingArguments = /^(first|last|after|before|limit|offset|skip|take|top|count|page|orderBy|sort)$/i;

/**
 * The values of fields in arguments, also those in input objects. Of several values, the first is used to create one.
 */
function filtersOf(args: Facts, isForMaking: boolean): Facts {
  const found: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(args)) {
    if (value === null || value === undefined || pagingArguments.test(name)) continue;
    if (isData(value)) Object.assign(found, filtersOf(value, isForMaking));
    else found[name] = isForMaking && Array.isArray(value) ? (value as unknown[])[0] : value;
  }
  return found;
}

function numberArgument(args: Facts, names: RegExp): number | undefined {
  const found = Object.entries(args).find(([name, value]) => names.test(name) && typeof value === "number");
  return found && Math.max(0, Number(found[1]));
}

function isConnection(type: GraphQLOutputType): type is GraphQLObjectType {
  return isObjectType(type) && type.getFields()["pageInfo"] !== undefined;
}

const usualPage = 20;

/** A connection with real pages: `first` and `after`, or `last` and `before`. */
function connection(
  type: GraphQLObjectType,
  args: Facts,
  { key, isRoot, context }: { readonly key: string; readonly isRoot: boolean; readonly context: MakeContext },
): Made | null {
  const { edges, nodes, pageInfo } = type.getFields();
  const edgeType = edges && getNamedType(edges.type);
  const node = isObjectType(edgeType) ? edgeType.getFields()["node"] : nodes;
  const named = node && getNamedType(node.type);
  const pageType = pageInfo && getNamedType(pageInfo.type);
  if (!named || !isObjectType(pageType)) return { __typename: type.name, key, known: {} };
  const all = context.graph.isEntity(named)
    ? entities(named, args, { key, isRoot, context })
    : Array.from({ length: context.items ?? poolSize }, (_, at) =>
        makeValue(node.type, "node", { key: `${key}#${String(at)}`, known: {}, context }),
      );
  const position = (cursor: unknown): number | undefined => {
    const at = typeof cursor === "string" ? Number(/^at-(\d+)$/.exec(cursor)?.[1] ?? Number.NaN) : Number.NaN;
    return Number.isInteger(at) ? at : undefined;
  };
  const first = position(args["after"]) === undefined ? 0 : (position(args["after"]) ?? 0) + 1;
  const end = Math.min(all.length, position(args["before"]) ?? all.length);
  const last = numberArgument(args, /^last$/);
  const size = numberArgument(args, /^first$/) ?? usualPage;
  const from = last === undefined ? Math.min(first, end) : Math.max(first, end - last);
  const to = last === undefined ? Math.min(end, from + size) : end;
  const cursor = (at: number): string => `at-${String(at)}`;
  const page = all.slice(from, to).map((value, at) => ({ value, cursor: cursor(from + at) }));
  const shown = {
    hasNextPage: to < all.length,
    hasPreviousPage: from > 0,
    startCursor: page[0]?.cursor ?? null,
    endCursor: page.at(-1)?.cursor ?? null,
  };
  return {
    __typename: type.name,
    key,
    known: {
      pageInfo: { __typename: pageType.name, key: `${key}/pageInfo`, known: shown },
      nodes: page.map(({ value }) => value),
      edges: page.map((each) => ({
        __typename: edgeType?.name ?? "",
        key: `${key}/${each.cursor}`,
        known: { cursor: each.cursor, node: each.value },
      })),
      ...Object.fromEntries(["totalCount", "total", "count"].map((name) => [name, all.length])),
    },
  };
}

function makeValue(
  type: GraphQLOutputType,
  name: string,
  { key, known, context }: { readonly key: string; readonly known: Facts; readonly context: MakeContext },
): unknown {
  const fake = seededFaker(context.seed, key);
  if (
    !isNonNullType(type) &&
    Object.keys(known).length === 0 &&
    (/cursor/i.test(name) || fake.number.int({ min: 1, max: nullOneIn }) === 1)
  )
    return null;
  const solid = getNullableType(type) as GraphQLOutputType;
  if (isListType(solid)) {
    const { lists = 0 } = context;
    // A list in a list has few items, and a deeply nested one none, so that there are not more with each level.
    const few = lists === 0 ? (context.items ?? fake.number.int({ min: 2, max: 3 })) : 2;
    const length = lists < outerLists ? few : lists < deepestList ? 1 : 0;
    const item = solid.ofType as GraphQLOutputType;
    const inside = { ...context, lists: lists + 1 };
    return Array.from({ length }, (_, at) =>
      makeValue(item, name.replace(/s$/, ""), { key: `${key}[${String(at)}]`, known: {}, context: inside }),
    );
  }
  if (isLeafType(solid)) return makeLeaf(solid, name, { key, makeContext: context });
  const named = getNamedType(solid);
  const entity = context.graph.isEntity(named) ? context.graph.some(named, key) : undefined;
  if (entity) return entity;
  const possible = isAbstractType(named) ? context.schema.getPossibleTypes(named) : isObjectType(named) ? [named] : [];
  const chosen = fake.helpers.arrayElement(possible);
  if (context.graph.isEntity(chosen)) return context.graph.some(chosen, key) ?? null;
  return { __typename: chosen.name, key, known } satisfies Made;
}

function makeLeaf(
  type: GraphQLOutputType,
  name: string,
  { key, makeContext: { seed, scalars } }: { readonly key: string; readonly makeContext: MakeContext },
): unknown {
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
      return sampleText("id", "id", { constraints: {}, fake });
    case "String":
      return sampleText(name, undefined, { constraints: {}, fake });
    default:
      return sampleScalar({ scalar: getNamedType(type).name, said: scalars.get(getNamedType(type).name) }, name, fake);
  }
}

/** The value of a custom scalar follows the project's format. Without one, it is guessed from the name. */
function sampleScalar(
  { scalar, said }: { readonly scalar: string; readonly said: string | undefined },
  name: string,
  fake: ReturnType<typeof seededFaker>,
): unknown {
  if (said !== undefined && /^u?int\d*$/.test(said)) return fake.number.int({ min: 1, max: 100_000 });
  if (said !== undefined) return sampleText(name, said, { constraints: {}, fake });
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
  return sampleText(name, format, { constraints: {}, fake });
}

async function* untilAborted<T>(
  items: AsyncGenerator<T, void, void>,
  signal: AbortSignal,
): AsyncGenerator<T, void, void> {
  for await (const item of items) {
    if (signal.aborted) return;
    yield item;
  }
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
