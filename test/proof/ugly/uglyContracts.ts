import type { PagingChoice, PagingSettings } from "../../../src/core/sdk/planPaging.js";
import { contractWith, okay } from "../../support/smallContract.js";

/** A small contract with one thing that real ones have, the result, and the messages. */
export interface UglyCase {
  readonly does: string;
  readonly document: Record<string, unknown>;
  readonly pages?: PagingSettings;
  /** Texts in any file of the SDK. */
  readonly gives: readonly string[];
  /** The beginnings of all messages: problems as "code message", skipped parts as "aside what". */
  readonly says?: readonly string[];
}

const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const text = { type: "string" };
const record = (properties: object, required: string[] = []) => ({ type: "object", properties, required });
/** A contract of one named schema. */
const schema = (subject: unknown, others: Record<string, unknown> = {}, dialect = "3.1.0") =>
  contractWith({ Subject: subject, ...others }, {}, dialect);
/** A contract of one operation. */
const operation = (node: object, more: object = {}, path = "/x", dialect = "3.1.0", method = "get") => ({
  ...contractWith({}, { [path]: { [method]: { operationId: "op", responses: okay(text), ...node } } }, dialect),
  ...more,
});
const parameter = (name: string, place: string, more: object = { schema: text }) => ({ name, in: place, ...more });
const older = (node: object, more: object = {}, method = "post") => ({
  swagger: "2.0",
  info: { title: "Old", version: "1" },
  paths: { "/x": { [method]: { operationId: "op", responses: { 200: { description: "" } }, ...node } } },
  ...more,
});
const json = (body: unknown) => ({ content: { "application/json": { schema: body } } });

/** Words of printed functions, with the suffixes for names that are taken. */
const ownWords = [
  "fields",
  "files",
  "json",
  "options",
  "paging",
  "place",
  "request",
  "self",
  "value",
  "variables",
  "wire",
].flatMap((word) => ["", "Value", "Here", "Sent", "Query"].map((ending) => word + ending));

/** Types of values that can be a page position, and types that cannot. */
const places: Readonly<Record<string, object>> = {
  Text: text,
  Moment: { type: "string", format: "date-time" },
  Integer: { type: "integer" },
  Wide: { type: "integer", format: "int64" },
  Narrow: { type: "integer", format: "int32" },
  Number: { type: "number" },
  Choice: { type: "string", enum: ["first", "last"] },
  List: { type: "array", items: text },
  Either: { oneOf: [text, { type: "integer" }] },
  Record: record({ at: text }),
};

/** A list for each type of argument with each type of the next position in a response; and counted ones. */
function everyPlace(): Pick<UglyCase, "document" | "pages"> {
  const pages: Record<string, PagingChoice> = {};
  const paths: Record<string, unknown> = {};
  const add = (
    name: string,
    choice: PagingChoice,
    schemas: { readonly asked: object; readonly said: object },
  ): void => {
    const isRequired = Object.keys(paths).length % 2 === 0;
    pages[name] = choice;
    paths[`/${name}`] = {
      get: {
        operationId: name,
        parameters: [
          { name: "place", in: "query", schema: schemas.asked, ...(isRequired ? { required: true } : {}) },
          { name: "following", in: "query", schema: text },
        ],
        responses: okay(
          record({ items: { type: "array", items: ref("Item") }, next: schemas.said }, isRequired ? ["next"] : []),
        ),
      },
    };
  };
  for (const [as, asked] of Object.entries(places)) {
    for (const [of, said] of Object.entries(places))
      add(`as${as}Said${of}`, { by: "cursor", parameter: "place", next: "/next" }, { asked, said });
    add(`as${as}Counted`, { by: "number", parameter: "place" }, { asked, said: text });
    add(`as${as}Passed`, { by: "offset", parameter: "place" }, { asked, said: text });
  }
  add("lost", { by: "cursor", parameter: "place", next: "/nowhere" }, { asked: text, said: text });
  return { document: contractWith({ Item: record({ id: text }) }, paths), pages };
}

/** Words in languages and in printed functions that real contracts have as page parameters, or could have. */
const pageWords = (
  "after args begin connection continue cursor default from func fun in init into is items limit new next object of " +
  "options page pages place query self skip this token type val value wire"
).split(" ");

/** A list for each of some words, with that word as page parameter; and one with that name itself. */
function everyWord(): Pick<UglyCase, "document" | "pages"> {
  const pages: Record<string, PagingChoice> = {};
  const paths: Record<string, unknown> = {};
  for (const word of pageWords)
    for (const [name, by] of [
      [`listBy ${word}`, "cursor"],
      [word, "offset"],
      [`${word} again`, "number"],
    ] as const) {
      const asked = by === "cursor" ? text : { type: "integer" };
      pages[name] = by === "cursor" ? { by, parameter: word, next: `/${word}` } : { by, parameter: word };
      paths[`/${name.replace(" ", "-")}`] = {
        get: {
          operationId: name,
          parameters: [parameter(word, "query", { schema: asked })],
          responses: okay(record({ items: { type: "array", items: ref("Item") }, [word]: text })),
        },
      };
    }
  return { document: contractWith({ Item: record({ id: text }) }, paths), pages };
}

export const uglyCases: readonly UglyCase[] = [
  // Names
  {
    does: "names operations with slashes and dots",
    document: operation({ operationId: "thing/list-for.group" }),
    gives: ["export function thingListForGroup("],
  },
  {
    does: "names an operation as a reserved word",
    document: operation({ operationId: "delete" }),
    gives: ["export function deleteCall("],
  },
  {
    does: "names an operation with a digit first, which has headers and pages and is deprecated",
    document: operation({
      operationId: "2faStatus",
      deprecated: true,
      parameters: [parameter("cursor", "query")],
      responses: {
        200: {
          description: "",
          headers: { "X-Left": { schema: text } },
          content: {
            "application/json": {
              schema: record({ items: { type: "array", items: text }, nextCursor: text }, ["items"]),
            },
          },
        },
        409: { description: "", content: { "application/json": { schema: record({ why: text }) } } },
      },
    }),
    gives: [
      "export const _2faStatus: typeof perform2faStatus =",
      "export function _2faStatusHeaders(",
      "export const _2faStatusItems: typeof perform_2faStatusItems =",
    ],
  },
  {
    does: "calls operations, parameters, formats and fields what every object has",
    document: contractWith(
      {
        Held: record({ constructor: { type: "string", format: "constructor" }, valueOf: text }, ["constructor"]),
        Page: record({ items: { type: "array", items: ref("Held") }, toString: text }),
      },
      {
        "/held": {
          get: {
            operationId: "constructor",
            parameters: ["constructor", "toString", "offset"].map((name) => parameter(name, "query")),
            responses: okay(ref("Page")),
          },
          post: { operationId: "valueOf", requestBody: json(ref("Held")), responses: okay(ref("Held")) },
        },
        "/listed": {
          get: {
            operationId: "listed",
            parameters: ["constructor", "hasOwnProperty", "offset"].map((name) =>
              parameter(name, "query", { required: true, schema: text }),
            ),
            responses: okay(ref("Page")),
          },
        },
      },
    ),
    pages: { listed: { by: "offset", parameter: "offset" } },
    gives: [],
  },
  {
    does: "answers the same with two statuses, and null with one of them only",
    document: contractWith(
      {},
      {
        "/x": {
          get: {
            operationId: "json",
            responses: {
              200: { description: "", ...json(text) },
              201: { description: "", ...json({ type: ["string", "null"] }) },
            },
          },
          put: {
            operationId: "words",
            responses: {
              200: { description: "", content: { "text/plain": { schema: text } } },
              201: { description: "", content: { "text/plain": { schema: { type: ["string", "null"] } } } },
            },
          },
          post: {
            operationId: "none",
            responses: {
              200: { description: "", ...json({ type: ["string", "null"] }) },
              201: { description: "", ...json(text) },
              204: { description: "" },
            },
          },
        },
      },
    ),
    gives: [],
  },
  {
    does: "pages by a deprecated parameter, whichever way",
    document: contractWith(
      {},
      Object.fromEntries(
        (["cursor", "offset", "page"] as const).map((by) => [
          `/${by}`,
          {
            get: {
              operationId: `list-by-${by}`,
              parameters: [
                parameter(by, "query", { schema: { type: by === "cursor" ? "string" : "integer" }, deprecated: true }),
              ],
              responses: okay(record({ items: { type: "array", items: text }, nextCursor: text }, ["items"])),
            },
          },
        ]),
      ),
    ),
    gives: [
      "export function listByCursorItems(",
      "export function listByOffsetItems(",
      "export function listByPageItems(",
    ],
  },
  {
    does: "pages by parameters that are words of a language, or the name of the list itself",
    ...everyWord(),
    gives: ["export function listByContinueItems(", "export function placeItems("],
  },
  {
    does: "has maps and lists of nothing but themselves, which may be null where they are needed",
    document: contractWith({
      Tree: { type: "object", additionalProperties: { anyOf: [ref("Tree"), { type: "null" }] } },
      Rows: { type: ["array", "null"], items: ref("Rows") },
      Kept: record({ tree: { anyOf: [ref("Tree"), { type: "null" }] }, rows: ref("Rows") }, ["tree", "rows"]),
    }),
    gives: ["export interface Kept {"],
  },
  {
    does: "answers one of several JSON types, and the usual one is not the first",
    document: contractWith(
      { T: record({ t: text }) },
      {
        "/a": {
          get: {
            operationId: "getA",
            responses: {
              200: {
                description: "",
                content: {
                  "application/vnd.x": { schema: ref("T") },
                  "application/json": { schema: { oneOf: [record({ a: text }, ["a"]), record({ b: text }, ["b"])] } },
                  "application/vnd.y+json": { schema: record({ list: { type: "array", items: record({ c: text }) } }) },
                },
              },
            },
          },
        },
      },
    ),
    gives: ["export type GetAAnswer =", '"application/vnd.y+json": GetAAnswerApplicationVndYJson'],
  },
  {
    does: "has no operation ids",
    document: contractWith(
      {},
      { "/berths/{id}": { get: { responses: okay(text), parameters: [parameter("id", "path")] } } },
    ),
    gives: ["export function getBerthsById("],
  },
  {
    does: "uses an operation id twice",
    document: contractWith(
      {},
      {
        "/a": { get: { operationId: "list", responses: okay(text) } },
        "/b": { get: { operationId: "list", responses: okay(text) } },
      },
    ),
    gives: ["export function getA(", "export function getB("],
  },
  {
    does: "names a schema as a global",
    document: schema(record({ at: ref("Date") }), { Date: record({ day: text }) }),
    gives: ["at?: DateShape;", "export interface DateShape {"],
  },
  {
    does: "names schemas apart by case alone",
    document: schema(record({ a: ref("thing"), b: ref("Thing") }), {
      thing: record({ x: text }),
      Thing: record({ y: text }),
    }),
    gives: ["export interface Thing {\n  y?: string;"],
  },
  {
    does: "names schemas like package paths",
    document: schema(ref("org.harbour.v1.Berth"), { "org.harbour.v1.Berth": record({ a: text }) }),
    gives: ["export interface OrgHarbourV1Berth {"],
  },
  {
    does: "names fields +1 and -1",
    document: schema(record({ "+1": { type: "integer" }, "-1": { type: "integer" } })),
    gives: ['"+1"?: number;', '"-1"?: number;'],
  },
  {
    does: "names fields outside ASCII",
    document: schema(record({ höhe: text, "große breite": text })),
    gives: ["höhe?: string;", '"große breite"?: string;'],
  },
  { does: "names a field with nothing", document: schema(record({ "": text })), gives: ['""?: string;'] },
  // Paths and parameters
  {
    does: "has two parameters in one segment",
    document: operation(
      { parameters: [parameter("base", "path"), parameter("head", "path")] },
      {},
      "/compare/{base}...{head}",
    ),
    gives: ['`/compare/${wire.segment(args.base, "base")}...${wire.segment(args.head, "head")}`'],
  },
  {
    does: "does not declare a path parameter",
    document: operation({}, {}, "/x/{id}"),
    gives: ["readonly id: string;"],
    says: ["contract.invalid The path /x/{id} has `{id}`, but no parameter declares it"],
  },
  {
    does: "writes a query into the path",
    document: operation({}, {}, "/x?kind=berth"),
    gives: ['path: "/x?kind=berth"'],
  },
  {
    does: "has one name in path and query",
    document: operation({ parameters: [parameter("id", "path"), parameter("id", "query")] }, {}, "/x/{id}"),
    gives: ["readonly id: string;", "readonly idQuery?: string | undefined;"],
  },
  {
    does: "declares reserved headers as parameters",
    document: operation({ parameters: [parameter("Content-Type", "header"), parameter("Prefer", "header")] }),
    gives: ["Prefer: wire.header(args.prefer)"],
  },
  {
    does: "writes `in` in capitals",
    document: operation({ parameters: [parameter("q", "Query")] }),
    gives: ["readonly q?: string | undefined;"],
    says: ["contract.irregular `in` must be `query`"],
  },
  {
    does: "has a parameter without a place",
    document: operation({ parameters: [{ name: "q" }] }),
    gives: [],
    says: ["aside GET /x"],
  },
  {
    does: "has parameters that are no list",
    document: operation({ parameters: {} }),
    gives: [],
    says: ["aside GET /x"],
  },
  {
    does: "puts JSON into the query",
    document: operation({ parameters: [parameter("filter", "query", json(record({ a: text })))] }),
    gives: ['wire.jsonQuery("filter", args.filter)'],
  },
  {
    does: "uses a style that a place does not know",
    document: operation({ parameters: [parameter("q", "query", { schema: text, style: "simple" })] }),
    gives: ['wire.form("q", args.q)'],
    says: ["contract.irregular `style` of a query parameter"],
  },
  {
    does: "needs a cookie",
    document: operation({ parameters: [parameter("sid", "cookie", { schema: text, required: true })] }),
    gives: ['cookie: wire.cookies([wire.form("sid", args.sid, false)])'],
  },
  {
    does: "spreads a deep object over the query",
    document: operation({
      parameters: [parameter("size", "query", { schema: record({ length: { type: "number" } }), style: "deepObject" })],
    }),
    gives: ['wire.deepObject("size", args.size)'],
  },
  {
    does: "allows reserved characters",
    document: operation({ parameters: [parameter("path", "query", { schema: text, allowReserved: true })] }),
    gives: ['wire.reserved("path", args.path)'],
  },
  {
    does: "names an argument as every object's own",
    document: operation({ parameters: [parameter("toString", "query")] }),
    gives: ["readonly toStringQuery?: string | undefined;"],
  },
  // Bodies and responses
  {
    does: "has a body on GET",
    document: operation({ requestBody: json(text) }),
    gives: ["body: wire.jsonBody(args.body)"],
  },
  { does: "has `schema: null`", document: operation({ requestBody: json(null) }), gives: ["readonly body?: unknown;"] },
  {
    does: "has `*/*` everywhere",
    document: operation({
      responses: { 200: { description: "", content: { "*/*": { schema: record({ a: text }) } } } },
    }),
    gives: ["Promise<OpAnswer>", 'answers: { 200: "json" }'],
  },
  {
    does: "has a vendor media type",
    document: operation({ requestBody: { content: { "application/vnd.harbour.v2+json": { schema: text } } } }),
    gives: ['wire.jsonBody(args.body, "application/vnd.harbour.v2+json")'],
  },
  {
    does: "has a multipart body that says nothing",
    document: operation({ requestBody: { content: { "multipart/form-data": { schema: {} } } } }),
    gives: ["wire.multipart(args.body)"],
  },
  {
    does: "says how parts of a form are written",
    document: operation({
      requestBody: {
        content: {
          "multipart/form-data": {
            schema: record({ meta: record({ a: text }) }),
            encoding: { meta: { contentType: "application/json" } },
          },
        },
      },
    }),
    gives: ['wire.multipart(args.body, { meta: { type: "application/json" } })'],
  },
  {
    does: "calls bytes in JSON binary",
    document: operation({ responses: okay(record({ photo: { type: "string", format: "binary" } })) }),
    gives: ["photo?: string;"],
  },
  {
    does: "has no success",
    document: operation({ responses: { 302: { description: "" }, 401: { description: "no" } } }),
    gives: ['answers: { "2XX": "none" }', "wire.StatusFailure<401, undefined>"],
  },
  {
    does: "has only a default",
    document: operation({ responses: { default: { description: "", ...json(record({ a: text })) } } }),
    gives: ['answers: { default: "json" }'],
  },
  {
    does: "has several successes",
    document: operation({ responses: { 200: { description: "", ...json(text) }, 202: { description: "" } } }),
    gives: ["string | undefined"],
  },
  {
    does: "has ranges and odd codes",
    document: operation({
      responses: { "2xx": { description: "", ...json(text) }, 418: { description: "teapot" }, ok: { description: "" } },
    }),
    gives: ['"2XX": "json"', "wire.StatusFailure<418, undefined>"],
    says: ["contract.invalid `ok` is not a status code"],
  },
  {
    does: "hides a stream behind a parameter",
    document: operation({
      responses: {
        200: { description: "", content: { "application/json;stream=watch": { schema: record({ a: text }) } } },
      },
    }),
    gives: ["AsyncGenerator<OpAnswer, void, undefined>", 'answers: { 200: "lines" }'],
  },
  {
    does: "streams events with a schema of the event",
    document: operation({
      responses: {
        200: { description: "", content: { "text/event-stream": { schema: record({ data: text, event: text }) } } },
      },
    }),
    gives: ['answers: { 200: "eventRecords" }'],
  },
  {
    does: "declares headers of answers",
    document: operation({
      responses: { 200: { description: "", headers: { "X-Left": { schema: { type: "integer" } } } } },
    }),
    gives: ["readonly xLeft: number | undefined;", 'wire.readHeader(headers, "X-Left", wire.asNumber)'],
  },
  {
    does: "has a server for one operation",
    document: operation({ servers: [{ url: "https://files.ostrel.example" }] }),
    gives: [
      'base: wire.ownServer(connection, "https://files.ostrel.example")',
      'readonly "https://files.ostrel.example"?: wire.Supplier<string> | undefined;',
    ],
  },
  {
    does: "has variables in its server",
    document: operation(
      {},
      { servers: [{ url: "https://{at}.ostrel.example", variables: { at: { default: "eu", enum: ["eu", "us"] } } }] },
    ),
    gives: [
      'readonly at?: "eu" | "us";',
      'wire.serverUrl("https://{at}.ostrel.example", { at: "eu", ...options.variables })',
    ],
  },
  {
    does: "has an empty server list and an empty variable",
    document: operation({}, { servers: [{ url: "https://{at}", variables: { at: { default: "" } } }] }),
    gives: ["readonly baseUrl: wire.Supplier<string>;"],
  },
  {
    does: "calls back",
    document: operation({
      callbacks: {
        done: { "{$request.body#/url}": { post: { requestBody: json(record({ id: text })), responses: {} } } },
      },
    }),
    gives: ["export interface OpDoneCallback {", "The callback `done` of `GET /x`, sent to `{$request.body#/url}`."],
  },
  {
    does: "sends webhooks",
    document: operation(
      {},
      {
        webhooks: {
          freed: {
            post: { requestBody: json(record({ id: text })), responses: okay(record({ ok: { type: "boolean" } })) },
          },
        },
      },
    ),
    gives: ["export interface FreedWebhook {", "export interface FreedWebhookReply {"],
  },
  {
    does: "needs one of several credentials, or none",
    document: operation(
      { security: [{ key: [] }, { cert: [], digest: [] }, {}] },
      {
        components: {
          securitySchemes: {
            key: { type: "apiKey", in: "cookie", name: "k" },
            cert: { type: "mutualTLS" },
            digest: { type: "http", scheme: "digest" },
          },
        },
      },
    ),
    gives: ['auth: [["key"], ["digest"]]', 'digest: wire.scheme("digest")'],
  },
  // Schemas
  {
    does: "says nullable in 3.0 beside allOf",
    document: schema(record({ a: { allOf: [ref("Other")], nullable: true } }), { Other: record({ x: text }) }, "3.0.3"),
    gives: ["a?: Other | null;"],
  },
  {
    does: "says null as an alternative inside 3.0",
    document: schema(record({ a: { anyOf: [text, { type: "null" }] } }), {}, "3.0.0"),
    gives: ["a?: string | null;"],
  },
  {
    does: "says null among the choices",
    document: schema(record({ a: { enum: ["x", "y", null] } })),
    gives: ["a?: SubjectA | null;", 'export type SubjectA = "x" | "y";'],
  },
  {
    does: "has an object whose only value is null",
    document: schema(record({ a: { type: "object", enum: [null] } })),
    gives: ["a?: null;"],
  },
  {
    does: "requires what it does not declare",
    document: schema(record({ a: text }, ["a", "b"])),
    gives: ["b: unknown;"],
  },
  {
    does: "says required in the field itself",
    document: schema(record({ a: { type: "string", required: true } })),
    gives: ["a?: string;"],
    says: ["contract.irregular `required` must be a list, but is the boolean true."],
  },
  {
    does: "writes a format as prose",
    document: schema(record({ a: { type: "string", format: "any text you like" } })),
    gives: ["a?: string;"],
  },
  {
    does: "writes int32 on a number",
    document: schema(record({ a: { type: "number", format: "int32" } })),
    gives: ["a?: number;"],
  },
  {
    does: "declares choices of text as an object",
    document: schema(record({ a: { type: "object", enum: ["x", "y"] } })),
    gives: ['export type SubjectA = "x" | "y";'],
  },
  {
    does: "writes a type in capitals",
    document: schema(record({ a: { type: "String" } })),
    gives: ["a?: string;"],
    says: ["contract.irregular `type` must be in lower case: `string`."],
  },
  {
    does: "writes a type that does not exist",
    document: schema(record({ a: { type: "strin" } })),
    gives: [],
    says: ["aside GET /s/Subject"],
  },
  { does: "has properties without a type", document: schema({ properties: { a: text } }), gives: ["a?: string;"] },
  {
    does: "merges records that declare a field differently",
    document: schema({ allOf: [record({ a: { type: "boolean" } }), record({ a: { const: true } })] }),
    gives: ["a?: true;"],
  },
  {
    does: "merges records that contradict each other",
    document: schema({ allOf: [record({ a: text }), record({ a: { type: "integer" } })] }),
    gives: ["a?: string;"],
    says: ["contract.conflict"],
  },
  {
    does: "varies only what is required",
    document: schema({ ...record({ a: text, b: text }), anyOf: [{ required: ["a"] }, { required: ["b"] }] }),
    gives: ["export interface Subject {\n  a?: string;\n  b?: string;\n}"],
  },
  {
    does: "tells a union apart by a mapping",
    document: schema(
      {
        oneOf: [ref("Cat"), ref("Dog")],
        discriminator: { propertyName: "kind", mapping: { c: "#/components/schemas/Cat", d: "Dog" } },
      },
      { Cat: record({ kind: text }), Dog: record({ kind: text }) },
    ),
    gives: ['(Cat & { kind: "c" }) | (Dog & { kind: "d" })'],
  },
  {
    does: "has a discriminator and a member that is a list",
    document: schema(
      { oneOf: [ref("Cat"), { type: "array", items: ref("Cat") }], discriminator: { propertyName: "kind" } },
      { Cat: record({ kind: text }) },
    ),
    gives: ["export type Subject = Cat | Cat[];"],
  },
  {
    does: "extends a base that has a discriminator",
    document: schema(ref("Pet"), {
      Pet: { ...record({ kind: text }, ["kind"]), discriminator: { propertyName: "kind" } },
      Cat: { allOf: [ref("Pet"), record({ purrs: { type: "boolean" } })] },
    }),
    gives: ['export type Pet = (Cat & { kind: "Cat" }) | (PetItself & { kind: "Pet" });'],
  },
  {
    does: "is closed",
    document: schema({ ...record({ a: text }), additionalProperties: false }),
    gives: ["export interface Subject {\n  a?: string;\n}"],
  },
  {
    does: "has a map beside its fields",
    document: schema({ ...record({ a: { type: "integer" } }), additionalProperties: text }),
    gives: ["[key: string]: string | number | undefined;"],
  },
  {
    does: "has a tuple whose items may be missing",
    document: schema({ type: "array", prefixItems: [text, { type: "integer" }], items: false, minItems: 1 }),
    gives: ["export type Subject = [string, number?];"],
  },
  {
    does: "writes a tuple as older drafts do",
    document: schema({ type: "array", items: [text, { type: "integer" }], additionalItems: false, minItems: 2 }),
    gives: ["export type Subject = [string, number];"],
  },
  {
    does: "refers to itself through everything",
    document: schema({
      oneOf: [
        { type: "array", items: ref("Subject") },
        record({ next: ref("Subject"), map: { type: "object", additionalProperties: ref("Subject") } }),
      ],
    }),
    gives: ["export type Subject = Subject[] | SubjectOption2;"],
  },
  {
    does: "needs lists, maps and tuples of nothing but themselves",
    document: contractWith(
      {
        Index: { type: "object", additionalProperties: ref("Index") },
        Register: ref("Index"),
        Shelf: { type: "array", items: ref("Shelf"), minItems: 1 },
        Chain: { type: "array", prefixItems: [text, ref("Chain")], minItems: 1, items: false },
        Knot: { type: "array", prefixItems: [text, ref("Knot")], minItems: 2, items: false },
        Subject: record(
          {
            index: ref("Index"),
            register: ref("Register"),
            shelf: ref("Shelf"),
            chain: ref("Chain"),
            knot: ref("Knot"),
          },
          ["index", "register", "shelf", "chain", "knot"],
        ),
      },
      { "/a": { post: { operationId: "op", requestBody: json(ref("Subject")), responses: okay(ref("Subject")) } } },
    ),
    gives: ["export type Shelf = Shelf[];", "  register: Register;"],
  },
  {
    does: "merges itself inside itself",
    document: schema(record({ next: { allOf: [ref("Subject"), record({ extra: text })] } })),
    gives: ["next?: SubjectNext;", "extra?: string;"],
  },
  {
    does: "has a constant that is an object",
    document: schema(record({ a: { const: { x: 1, y: [true, null] } } })),
    gives: ["x: 1;\n  y: [true, null];"],
  },
  {
    does: "forbids what a type cannot forbid",
    document: schema(record({ a: { type: "string", not: { const: "no" } } })),
    gives: ["a?: string;"],
    says: ["contract.wider `not` cannot be expressed by a type"],
  },
  {
    does: "has different faces",
    document: contractWith(
      { Account: record({ id: { type: "string", readOnly: true }, password: { type: "string", writeOnly: true } }) },
      { "/a": { post: { operationId: "op", requestBody: json(ref("Account")), responses: okay(text) } } },
    ),
    gives: [
      "export interface Account {\n  id?: string;\n}",
      "export interface AccountToSend {\n  password?: string | undefined;\n}",
    ],
  },
  {
    does: "deprecates with a word in the description",
    document: schema(record({ a: { type: "string", deprecated: true, description: "Use b." } })),
    gives: ["   * Use b.\n   * @deprecated"],
  },
  {
    does: "describes with comment closers",
    document: schema({ type: "string", description: "Ends */ here, /* and `there`." }),
    gives: ["Ends *\\/ here, /\\* and `there`."],
  },
  {
    does: "has a null where a schema is a list",
    document: schema({ properties: [] }),
    gives: [],
    says: ["aside GET /s/Subject"],
  },
  {
    does: "has alternatives that are no list",
    document: schema({ oneOf: text }),
    gives: [],
    says: ["aside GET /s/Subject"],
  },
  {
    does: "has limits that are text",
    document: schema(record({ a: { type: "string", maxLength: "20" } })),
    gives: ["a?: string;"],
    says: ["contract.irregular `maxLength` must be a whole number"],
  },
  {
    does: "refers to a schema by an anchor",
    document: schema({ $ref: "#berth" }, { Berth: { $anchor: "berth", ...record({ a: text }) } }),
    gives: ["Promise<Subject>", "export type Subject = Berth;"],
  },
  {
    does: "refers to a schema by its id",
    document: schema(
      { $ref: "https://ostrel.example/berth" },
      { Berth: { $id: "https://ostrel.example/berth", ...record({ a: text }) } },
    ),
    gives: ["export type Subject = Berth;"],
  },
  {
    does: "refers dynamically",
    document: schema(
      { $dynamicRef: "#node" },
      { Tree: { $dynamicAnchor: "node", ...record({ kids: { type: "array", items: { $dynamicRef: "#node" } } }) } },
    ),
    gives: ["kids?: Tree[];", "export type Subject = Tree;"],
  },
  { does: "refers to what is not there", document: schema(ref("Nobody")), gives: [], says: ["aside GET /s/Subject"] },
  {
    does: "refers to a path item",
    document: {
      ...contractWith({}, { "/a": { $ref: "#/components/pathItems/Shared" } }),
      components: { pathItems: { Shared: { get: { operationId: "op", responses: okay(text) } } } },
    },
    gives: ["export function op("],
  },
  // 2.0
  {
    does: "2.0: writes lists in every way",
    document: older({
      parameters: ["csv", "ssv", "tsv", "pipes", "multi"].map((format) => ({
        name: format,
        in: "query",
        type: "array",
        items: text,
        collectionFormat: format,
      })),
    }),
    gives: [
      'wire.form("csv", args.csv, false)',
      'wire.spaced("ssv", args.ssv)',
      'wire.tabbed("tsv", args.tsv)',
      'wire.piped("pipes", args.pipes)',
      'wire.form("multi", args.multi)',
    ],
  },
  {
    does: "2.0: uploads a file",
    document: older({
      consumes: ["multipart/form-data"],
      parameters: [{ name: "photo", in: "formData", type: "file", required: true }],
    }),
    gives: ["photo: Blob | Uint8Array | ArrayBuffer | ReadableStream<Uint8Array>;", "wire.multipart(args.body)"],
  },
  {
    does: "2.0: sends a form",
    document: older({
      parameters: [{ name: "tags", in: "formData", type: "array", items: text, collectionFormat: "pipes" }],
    }),
    gives: ['wire.urlencoded(args.body, { tags: { style: "pipeDelimited", explode: false } })'],
  },
  {
    does: "2.0: answers a file",
    document: older({
      produces: ["application/pdf"],
      responses: { 200: { description: "", schema: { type: "file" } } },
    }),
    gives: ["Promise<Blob>"],
  },
  {
    does: "2.0: says where it is in parts",
    document: older({}, { host: "ostrel.example", basePath: "/v1/", schemes: ["http", "https"] }),
    gives: ['wire.connection("case", "https://ostrel.example/v1", options)'],
  },
  {
    does: "2.0: keeps its parameters and responses elsewhere",
    document: older(
      { parameters: [{ $ref: "#/parameters/limit" }], responses: { 404: { $ref: "#/responses/Gone" } } },
      {
        parameters: { limit: { name: "limit", in: "query", type: "integer" } },
        responses: { Gone: { description: "gone", schema: { $ref: "#/definitions/Gone" } } },
        definitions: { Gone: record({ why: { type: "string", "x-nullable": true } }) },
      },
    ),
    gives: ["readonly limit?: number | undefined;", "wire.StatusFailure<404, Gone>", "why?: string | null;"],
  },
  // 3.2
  {
    does: "3.2: asks with QUERY and a method of its own",
    document: contractWith(
      {},
      {
        "/x": {
          query: { operationId: "ask", responses: okay(text) },
          additionalOperations: { COPY: { operationId: "copy", responses: okay(text) } },
        },
      },
      "3.2.0",
    ),
    gives: ['method: "QUERY"', 'method: "COPY"'],
  },
  {
    does: "3.2: describes the whole query string",
    document: operation(
      {
        parameters: [
          {
            name: "q",
            in: "querystring",
            content: { "application/x-www-form-urlencoded": { schema: record({ a: text }) } },
          },
        ],
      },
      {},
      "/x",
      "3.2.0",
    ),
    gives: ['query: [wire.form("", args.q)]'],
  },
  {
    does: "3.2: describes the items of a stream",
    document: operation(
      {
        responses: { 200: { description: "", content: { "application/jsonl": { itemSchema: record({ a: text }) } } } },
      },
      {},
      "/x",
      "3.2.0",
    ),
    gives: ["AsyncGenerator<OpAnswer, void, undefined>"],
  },
  {
    does: "3.2: has a schema for every other tag",
    document: schema(
      { oneOf: [ref("Cat"), ref("Other")], discriminator: { propertyName: "kind", defaultMapping: "Other" } },
      { Cat: record({ kind: text }), Other: record({ kind: text }) },
      "3.2.0",
    ),
    gives: ['export type Subject = (Cat & { kind: "Cat" }) | Other;'],
  },
  // Names
  {
    does: "has what printed functions call their own, and what is made of that when it is taken",
    document: {
      ...operation(
        {
          parameters: ownWords.map((name) => parameter(name, "query")),
          requestBody: json(ref("Subject")),
          responses: okay(ref("Subject")),
        },
        {},
        "/x",
        "3.1.0",
        "post",
      ),
      components: {
        schemas: {
          Subject: record(Object.fromEntries(ownWords.map((name, at) => [name, at % 2 === 0 ? text : ref("Subject")]))),
        },
      },
    },
    gives: ["fieldsHere"],
  },
  {
    does: "has records that need each other, with a way out by another member of a union",
    document: {
      ...operation({ responses: okay(ref("Mixed")) }),
      components: {
        schemas: {
          Type: record({ Type: { oneOf: [ref("Type"), text, { type: "array", items: text }] } }, ["Type"]),
          Hull: record({ of: { oneOf: [ref("Keel"), { type: "integer" }] } }, ["of"]),
          Keel: record({ of: { anyOf: [ref("Inner"), { type: "boolean" }] } }, ["of"]),
          Inner: { oneOf: [{ oneOf: [ref("Hull"), { type: "array", items: ref("Keel"), minItems: 1 }] }, text] },
          Mixed: record({ a: ref("Inner"), b: ref("Hull"), c: ref("Type") }, ["a", "b", "c"]),
        },
      },
    },
    gives: ["TypeType = Type | string | string[];"],
  },
  // Pages
  {
    does: "says its pages by every kind of value, whether they fit each other or not",
    ...everyPlace(),
    gives: ["asTextSaidTextItems", "asIntegerSaidTextItems", "asTextSaidNumberItems", "asMomentSaidMomentItems"],
  },
  // Documents
  {
    does: "has no info and no paths",
    document: { openapi: "3.1.0" },
    gives: ["export function connectCase("],
    says: ["contract.irregular `info` is missing."],
  },
  {
    does: "has paths that are a list",
    document: { openapi: "3.1.0", info: { title: "T", version: "1" }, paths: [] },
    gives: [],
    says: ["contract.irregular `paths` must be an object", "contract.invalid `paths` must be an object"],
  },
  {
    does: "has extensions that look like schemas",
    document: { ...schema(record({ a: text })), "x-schemas": { A: { $ref: "#/nowhere" } }, "x-null": null },
    gives: ["a?: string;"],
  },
];
