import { readContract } from "../../../src/core/readContract.js";
import type { PagingChoice } from "../../../src/core/sdk/planPaging.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { RestPlan } from "../../../src/core/sdk/sdkPlan.js";
import type {
  AnswerRow,
  BodyRow,
  CallRow,
  Data,
  Described,
  EventRow,
  Failed,
  FailureRow,
  PagingRow,
  ParameterRow,
  RawAnswer,
  RedirectRow,
  SentRequest,
  ValueRow,
} from "./vectorRow.js";
import { vectorRows } from "./vectorRows.js";

/** One call of an SDK for all rows, and its expected result. */
export interface VectorStep {
  readonly kind: string;
  readonly why: string;
  /** The operation's id. */
  readonly id: string;
  /** Values by the plan's names of arguments. */
  readonly given: Readonly<Record<string, Data>>;
  /** The argument that gets the result of the step before. */
  readonly givenBack?: string;
  readonly auth: Readonly<Record<string, Data>>;
  /** Headers of the connection. */
  readonly headers?: Readonly<Record<string, string>>;
  /** Whether all items of all pages are wanted. */
  readonly isPaged?: boolean;
  /** The responses of the server, in order. */
  readonly answers: readonly RawAnswer[];
  /** The targets of all requests. */
  readonly asks?: readonly string[];
  /** The last request. */
  readonly sends: SentRequest;
  /** The app's result; of items, those before a failure. */
  readonly gives?: Data;
  readonly fails?: Failed;
  /** The failure in languages whose types have no place for the value. */
  readonly strict?: Failed;
  /** The event facts besides data that the app gets. */
  readonly told?: readonly Data[];
}

/** A row as operations of one contract. */
interface Operation {
  readonly id: string;
  readonly path: string;
  readonly method: string;
  readonly operation: Described;
  readonly schemas?: Described;
  readonly security?: Described;
  readonly step: Omit<VectorStep, "kind" | "why" | "id" | "given" | "auth"> & Partial<Pick<VectorStep, "auth">>;
  /** Values by the names of parameters, and `body`. */
  readonly given?: Readonly<Record<string, Data>>;
  /** How its pages are read. */
  readonly pages?: PagingChoice;
}

/** The response for a row about the request alone: the declared one. */
function answerOf({ responses }: Described): RawAnswer {
  const { content = {} } = ((responses as Described | undefined)?.["200"] ?? {}) as { content?: Described };
  const [type] = Object.keys(content);
  return type === undefined ? done : { type, body: type.includes("json") ? '""' : "" };
}

const done = { status: 204, type: null } as const;

const operationsOf = {
  parameters: ({ parameter, value, writes }: ParameterRow, id: string): Operation[] => {
    const place = parameter["in"] as string;
    const name = (parameter["name"] as string | undefined) ?? "v";
    const path = place === "path" ? `/${id}/{${name}}` : `/${id}`;
    const described = { name, schema: schemaOf(value), ...parameter, ...(place === "path" ? { required: true } : {}) };
    const { schema: _schema, ...withContent } = described;
    const sends: SentRequest =
      place === "query"
        ? { target: writes === "" ? `/${id}` : `/${id}?${writes}` }
        : place === "path"
          ? { target: `/${id}/${writes}` }
          : { headers: { [place === "cookie" ? "cookie" : name.toLowerCase()]: writes } };
    return [
      {
        id,
        path,
        method: "get",
        operation: { parameters: ["content" in parameter ? withContent : described], responses: none },
        step: { answers: [done], sends },
        given: { [name]: value },
      },
    ];
  },
  bodies: ({ type, content, value, writes }: BodyRow, id: string): Operation[] => [
    {
      id,
      path: `/${id}`,
      method: "post",
      operation: { requestBody: { required: true, content: { [type]: content } }, responses: none },
      step: {
        answers: [done],
        sends: { body: writes, ...(type.startsWith("multipart/") ? {} : { headers: { "content-type": type } }) },
      },
      given: { body: value },
    },
  ],
  answers: (
    { schema, schemas, type = "application/json", answer, gives, fails, strict }: AnswerRow,
    id: string,
  ): Operation[] => [
    {
      id,
      path: `/${id}`,
      method: "get",
      operation: {
        responses: { 200: { description: "Fine", content: { [type]: schema === null ? {} : { schema } } } },
      },
      ...(schemas ? { schemas } : {}),
      step: {
        answers: [typeof answer === "string" ? { body: answer } : answer],
        sends: {},
        ...(gives === undefined ? {} : { gives }),
        ...(fails ? { fails } : {}),
        ...(strict ? { strict } : {}),
      },
    },
  ],
  // By a name, so that the received and the sent value have one type.
  values: ({ schema: whole, schemas, wire, seen, back = wire }: ValueRow, id: string): Operation[] => {
    const schema = { $ref: "#/components/schemas/Whole" };
    return [
      {
        id: `${id}Asked`,
        path: `/${id}`,
        method: "get",
        operation: { responses: { 200: { description: "Fine", content: { "application/json": { schema } } } } },
        schemas: { ...schemas, Whole: whole },
        step: { answers: [{ body: wire }], sends: {}, gives: seen },
      },
      {
        id: `${id}Sent`,
        path: `/${id}`,
        method: "post",
        operation: { requestBody: { required: true, content: { "application/json": { schema } } }, responses: none },
        step: { answers: [done], sends: { body: back }, givenBack: "body" },
      },
    ];
  },
  calls: (
    { method = "get", path, operation, schemas, security, given, auth, sends }: CallRow,
    id: string,
  ): Operation[] => [
    {
      id,
      path: `/${id}${path}`,
      method,
      operation: { responses: none, ...operation },
      ...(schemas ? { schemas } : {}),
      ...(security ? { security } : {}),
      step: {
        answers: [answerOf(operation)],
        sends: { ...sends, ...(sends.target === undefined ? {} : { target: targetOf(sends.target, id) }) },
        ...(auth ? { auth } : {}),
      },
      ...(given ? { given } : {}),
    },
  ],
  failures: ({ responses, schemas, answer, fails }: FailureRow, id: string): Operation[] => [
    {
      id,
      path: `/${id}`,
      method: "get",
      operation: { responses },
      ...(schemas ? { schemas } : {}),
      step: { answers: [answer], sends: {}, fails },
    },
  ],
  events: ({ chunks, events }: EventRow, id: string): Operation[] => [
    {
      id,
      path: `/${id}`,
      method: "get",
      operation: {
        responses: { 200: { description: "Fine", content: { "text/event-stream": { schema: { type: "string" } } } } },
      },
      step: {
        answers: [{ type: "text/event-stream", body: chunks }],
        sends: {},
        gives: events.map(({ data }) => data),
        told: events.map(({ data: _data, ...others }) => others),
      },
    },
  ],
  paging: ({ by, from = "", credential, answers, asks, items, fails, ...row }: PagingRow, id: string): Operation[] => {
    const begun = new URLSearchParams(from);
    const number = { type: "integer" };
    const taken = by === "link" ? ["page", "limit"] : [{ cursor: "cursor", offset: "offset", number: "page" }[by]];
    const schema = {
      type: "object",
      properties: { items: { type: "array", items: number }, next: { type: [row.said ?? "string", "null"] } },
    };
    const asked = { type: row.cursor ?? (by === "cursor" ? "string" : "integer") };
    return [
      {
        id,
        path: `/${id}`,
        method: "get",
        operation: {
          parameters: taken.map((name) => ({
            name,
            in: "query",
            schema: by === "link" ? number : asked,
          })),
          ...(credential === undefined ? {} : { security: [{ Key: [] }] }),
          responses: { 200: { description: "Fine", content: { "application/json": { schema } } } },
        },
        ...(credential === undefined ? {} : { security: { Key: { type: "apiKey", in: "query", name: "k" } } }),
        pages: { by, ...(by === "link" ? {} : { parameter: taken[0] ?? "" }) },
        given: Object.fromEntries(
          [...begun].map(([name, text]) => [name, asked.type === "string" ? text : Number(text)]),
        ),
        step: {
          isPaged: true,
          answers: answers.map(({ link, status = 200, ...page }) => ({
            status,
            ...(link === undefined ? {} : { headers: { link: link.replace("{path}", `/${id}`) } }),
            body: JSON.stringify(page),
          })),
          asks: asks.map((query) => `/${id}${query}`),
          sends: {},
          gives: items,
          ...(credential === undefined ? {} : { auth: { Key: credential } }),
          ...(fails ? { fails } : {}),
        },
      },
    ];
  },
  redirects: ({ method = "POST", redirects, arrives, fails }: RedirectRow, id: string): Operation[] => [
    {
      id,
      path: `/${id}`,
      method: method.toLowerCase(),
      operation: {
        requestBody: { required: true, content: { "application/json": { schema: schemaOf({ a: 1 }) } } },
        security: [{ Token: [], Key: [], Cookie: [] }],
        responses: none,
      },
      security: {
        Token: { type: "http", scheme: "bearer" },
        Key: { type: "apiKey", in: "header", name: "x-key" },
        Cookie: { type: "apiKey", in: "cookie", name: "sid" },
      },
      given: { body: { a: 1 } },
      step: {
        auth: { Token: "t", Key: "k", Cookie: "c" },
        headers: { "x-standing": "s" },
        answers: [...redirects.map(([status, location]) => ({ status, type: null, headers: { location } })), done],
        sends: arrives
          ? {
              method: arrives.method,
              body: arrives.body ? '{"a":1}' : "",
              headers: {
                ...Object.fromEntries(
                  Object.entries(credentialHeaders).map(([name, [header, value]]) => [
                    header,
                    arrives.credentials.includes(name) ? value : null,
                  ]),
                ),
                "content-type": arrives.body ? "application/json" : null,
              },
            }
          : {},
        ...(fails ? { fails } : {}),
      },
    },
  ],
} as const;

/** The target in a row: below a part for the row, which is written only if it does not come first. */
function targetOf(target: string, id: string): string {
  return target.includes("{row}") ? target.replace("{row}", id) : `/${id}${target}`;
}

const credentialHeaders = {
  bearer: ["authorization", "Bearer t"],
  cookie: ["cookie", "sid=c"],
  key: ["x-key", "k"],
  standing: ["x-standing", "s"],
} as const;

const none = { 204: { description: "Done" } };

/** The kinds of rows that are calls of an SDK. */
export const calledKinds = Object.keys(operationsOf) as (keyof typeof operationsOf)[];

/** Returns the plan of one SDK with an operation for each row, and the calls that run the rows. */
export function vectorSteps(): { readonly plan: RestPlan; readonly steps: readonly VectorStep[] } {
  const found = calledKinds.flatMap((kind) =>
    vectorRows(kind).flatMap((row, at) =>
      operationsOf[kind](row as never, `${kind}${String(at + 1)}`).map((operation) => ({
        kind,
        why: row.why,
        operation,
      })),
    ),
  );
  const paths: Record<string, Record<string, unknown>> = {};
  const schemas: Record<string, unknown> = {};
  const securitySchemes: Record<string, unknown> = {};
  for (const { operation } of found) {
    const { id, path, method } = operation;
    paths[path] = { ...paths[path], [method]: own(id, { operationId: id, ...operation.operation }) };
    for (const [name, schema] of Object.entries(operation.schemas ?? {})) schemas[named(id, name)] = own(id, schema);
    for (const [name, scheme] of Object.entries(operation.security ?? {})) securitySchemes[named(id, name)] = scheme;
  }
  const document = {
    openapi: "3.1.0",
    info: { title: "Vectors", version: "1" },
    paths,
    components: { schemas, securitySchemes },
  };
  const { contract, problems } = readContract("rows", [{ document: "rows.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest" || contract.setAside.length > 0)
    throw new Error(
      [
        ...problems.map(({ message }) => message),
        ...(contract?.setAside.map(({ what, why }) => `${what}: ${why}`) ?? []),
      ].join("\n"),
    );
  const pages = Object.fromEntries(
    found.flatMap(({ operation: { id, pages: how } }) => (how ? [[id, how] as const] : [])),
  );
  const plan = planRest(contract, { pages });
  const steps = found.map(({ kind, why, operation: { id, given = {}, step } }): VectorStep => {
    const call = plan.calls.find(({ operation }) => operation.operationId === id);
    if (!call) throw new Error(`There is no call ${id}.`);
    const nameOf = (wanted: string): string => {
      const argument = call.arguments.find(({ source }) =>
        source.kind === "parameter" ? source.parameter.name === wanted : wanted === "body",
      );
      if (!argument) throw new Error(`${id} takes no ${wanted}.`);
      return argument.name;
    };
    return {
      kind,
      why,
      id,
      ...step,
      given: Object.fromEntries(Object.entries(given).map(([name, value]) => [nameOf(name), value])),
      auth: Object.fromEntries(Object.entries(step.auth ?? {}).map(([name, value]) => [named(id, name), value])),
    };
  });
  return { plan, steps };
}

/** The name of a row's schema or scheme in the whole contract. */
function named(id: string, name: string): string {
  return `${id.replace(/(Asked|Sent)$/, "")}${name}`;
}

/** A part of a row whose references and schemes are those of the whole contract. */
function own(id: string, part: unknown): unknown {
  return JSON.parse(
    JSON.stringify(part, (key, value: unknown) =>
      key === "security" && Array.isArray(value)
        ? value.map((each: object) =>
            Object.fromEntries(Object.entries(each).map(([name, of]) => [named(id, name), of as unknown])),
          )
        : typeof value === "string" && value.startsWith("#/components/schemas/")
          ? `#/components/schemas/${named(id, value.slice("#/components/schemas/".length))}`
          : value,
    ),
  ) as unknown;
}

/** The schema of a value with only its type. */
function schemaOf(value: Data): Described {
  if (Array.isArray(value))
    return { type: "array", items: value[0] === undefined ? { type: "string" } : schemaOf(value[0] as Data) };
  if (value === null) return { type: "null" };
  if (typeof value === "object")
    return {
      type: "object",
      properties: Object.fromEntries(Object.entries(value).map(([key, each]) => [key, schemaOf(each)])),
    };
  if (typeof value === "number") return { type: Number.isSafeInteger(value) ? "integer" : "number" };
  return { type: typeof value };
}
