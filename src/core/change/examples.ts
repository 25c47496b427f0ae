import type { ChangeCode } from "./changeCodes.js";

/** Two versions of a made-up contract with one difference. */
export interface ChangeExample {
  readonly protocol: "rest" | "graphql";
  readonly before: string;
  readonly after: string;
  /** The codes of changes that always come with this one. */
  readonly along?: readonly ChangeCode[];
  /** REST: shared parameters, which the connection supplies. */
  readonly standing?: readonly string[];
  /** Only languages that distinguish types by name see it. */
  readonly isOfNames?: boolean;
  /** It affects only source that destructures records by position. */
  readonly isOfPlaces?: boolean;
}

const fine = '"200": { description: Fine, content: { application/json: { schema: { type: string } } } }';

function description(paths: string, more = ""): string {
  return `openapi: 3.1.0\ninfo: { title: Berths, version: "1" }\npaths:\n${paths}${more}`;
}

/** Two versions of `GET /berths`, from its content. */
function operation(before: string, after: string): ChangeExample {
  const get = (inside: string): string => description(`  /berths:\n    get:\n      operationId: listBerths\n${inside}`);
  return { protocol: "rest", before: get(before), after: get(after) };
}

/** The lines of an operation: parameters (each a flow map), statuses, and more. */
function lines({ parameters = [], statuses = [fine], more = "" }: Inside): string {
  const taken = parameters.length > 0 ? `      parameters:\n${rows(parameters, "        - ")}` : "";
  return `${more === "" ? "" : `      ${more}\n`}${taken}      responses:\n${rows(statuses, "        ")}`;
}

interface Inside {
  readonly parameters?: readonly string[];
  readonly statuses?: readonly string[];
  readonly more?: string;
}

function rows(texts: readonly string[], indent: string): string {
  return texts.map((text) => `${indent}${text}\n`).join("");
}

function inside(before: Inside, after: Inside): ChangeExample {
  return operation(lines(before), lines(after));
}

/** Two versions of a schema that is only in responses. */
function answered(
  before: string,
  after: string,
  {
    name = "Berth",
    afterName = name,
  }: { readonly name?: string | undefined; readonly afterName?: string | undefined } = {},
): ChangeExample {
  const text = (schema: string, called: string): string =>
    description(
      `  /berths:\n    get:\n      operationId: getBerth\n      responses:\n        "200":\n          description: Fine\n          content: { application/json: { schema: { $ref: "#/components/schemas/${called}" } } }\n`,
      `components:\n  schemas:\n    ${called}:\n      ${schema}\n`,
    );
  return { protocol: "rest", before: text(before, name), after: text(after, afterName) };
}

/** Two versions of a schema that is only in requests. */
function sent(before: string, after: string): ChangeExample {
  const text = (schema: string): string =>
    description(
      '  /berths:\n    post:\n      operationId: addBerth\n      requestBody:\n        required: true\n        content: { application/json: { schema: { $ref: "#/components/schemas/Berth" } } }\n      responses: { "204": { description: Done } }\n',
      `components:\n  schemas:\n    Berth:\n      ${schema}\n`,
    );
  return { protocol: "rest", before: text(before), after: text(after) };
}

function record(fields: string, more = ""): string {
  return `{ type: object, properties: { ${fields} }${more} }`;
}

function schema(before: string, after: string): ChangeExample {
  return { protocol: "graphql", before, after };
}

const text = "{ type: string }";
const quay = (more = "", name = "quay", place = "query"): string =>
  `{ name: ${name}, in: ${place}, schema: ${text}${more} }`;
const sized = (type: string): string => `{ name: pageSize, in: query, schema: { ${type} } }`;
const json = (type = text): string => `application/json: { schema: ${type} }`;
const status = (code: string, content = json()): string => `"${code}": { description: "", content: { ${content} } }`;
const bare = (code: string): string => `"${code}": { description: "" }`;
const body = (content: string, more = ""): Inside => ({ more: `requestBody: { content: { ${content} }${more} }` });
const required = ", required: true";
const bearer = (name: string, security = `security: [{ ${name}: [] }]`): string =>
  description(
    `  /berths:\n    get:\n      operationId: listBerths\n      ${security}\n      responses:\n        ${fine}\n`,
    `components: { securitySchemes: { ${name}: { type: http, scheme: bearer } } }\n`,
  );
const cursor = `{ name: cursor, in: query, schema: ${text} }`;
const page = record(`berths: { type: array, items: ${text} }, nextCursor: ${text}`);
const hooked = (hook: string): string =>
  description(
    `  /berths:\n    get:\n      operationId: listBerths\n      responses:\n        ${fine}\n`,
    `webhooks:\n  berthFilled:\n    post: { responses: { "204": { description: Heard } } }\n${hook}`,
  );
const freed = '  berthFreed:\n    post: { responses: { "204": { description: Heard } } }\n';
const vessels =
  "type Query { vessel: Vessel tug: Tug }\ninterface Vessel { name: String }\ntype Sail implements Vessel { name: String }\n";
const finding = (input: string): string => `type Query { berth(by: BerthBy!): String }\n${input}\n`;

/** For each change code, two contracts with only that change. `rhema explain` shows them, and a test compares them. */
export const changeExamples: Readonly<Record<ChangeCode, ChangeExample>> = {
  "operation.gone": {
    protocol: "rest",
    before: description(
      `  /berths:\n    get:\n      operationId: listBerths\n      responses: { ${fine} }\n    delete:\n      operationId: clearBerths\n      responses: { ${bare("204")} }\n`,
    ),
    after: description(`  /berths:\n    get:\n      operationId: listBerths\n      responses: { ${fine} }\n`),
  },
  "operation.new": {
    protocol: "rest",
    before: description(`  /berths:\n    get:\n      operationId: listBerths\n      responses: { ${fine} }\n`),
    after: description(
      `  /berths:\n    get:\n      operationId: listBerths\n      responses: { ${fine} }\n    delete:\n      operationId: clearBerths\n      responses: { ${bare("204")} }\n`,
    ),
  },
  "operation.renamed": {
    ...inside({}, {}),
    after: inside({}, {}).after.replace("listBerths", "findBerths"),
  },
  "operation.moved": { ...inside({}, {}), after: inside({}, {}).after.replace("/berths:", "/all-berths:") },
  "operation.deprecated": inside({}, { more: "deprecated: true" }),
  "auth.now-required": {
    protocol: "rest",
    before: bearer("harbourToken", "security: [{}, { harbourToken: [] }]"),
    after: bearer("harbourToken"),
  },
  "auth.no-longer-required": {
    protocol: "rest",
    before: bearer("harbourToken"),
    after: bearer("harbourToken", "security: [{}, { harbourToken: [] }]"),
  },
  "auth.scheme.changed": {
    protocol: "rest",
    before: bearer("harbourKey").replace("type: http, scheme: bearer", "type: apiKey, in: header, name: X-Harbour"),
    after: bearer("harbourKey").replace("type: http, scheme: bearer", "type: apiKey, in: header, name: X-Key"),
  },
  "auth.scheme.gone": { protocol: "rest", before: bearer("harbourToken"), after: bearer("token") },
  "server.moved": {
    protocol: "rest",
    before: `${inside({}, {}).before}servers: [{ url: "https://api.ostrel.example/v1" }]\n`,
    after: `${inside({}, {}).before}servers: [{ url: "https://api.ostrel.example/v2" }]\n`,
  },
  "server.own.gone": inside({ more: 'servers: [{ url: "https://files.ostrel.example" }]' }, {}),
  "server.elsewhere": {
    protocol: "rest",
    before: `${inside({}, {}).before}servers: [{ url: "https://api.ostrel.example/v1" }]\n`,
    after: `${inside({}, {}).before}servers: [{ url: "https://api.elsewhere.example/v1" }]\n`,
  },
  "operation.pages.gone": inside(
    { parameters: [cursor], statuses: [status("200", json(page))] },
    { parameters: [cursor], statuses: [status("200", `${json(page)}, text/csv: { schema: ${text} }`)] },
  ),
  "ask.parameter.gone": inside({ parameters: [quay()] }, {}),
  "ask.parameter.renamed": inside({ parameters: [quay()] }, { parameters: [quay("", "quayName")] }),
  "ask.argument.renamed": {
    ...inside({ parameters: [quay("", "quay", "header")] }, { parameters: [quay("", "quay", "header"), quay()] }),
    along: ["ask.parameter.new"],
  },
  "ask.parameter.new": inside({}, { parameters: [quay()] }),
  "ask.parameter.new-required": inside({}, { parameters: [quay(required)] }),
  "ask.parameter.now-required": inside({ parameters: [quay()] }, { parameters: [quay(required)] }),
  "ask.parameter.now-optional": inside({ parameters: [quay(required)] }, { parameters: [quay()] }),
  "ask.default.changed": inside(
    { parameters: [sized("type: integer, default: 20")] },
    { parameters: [sized("type: integer, default: 50")] },
  ),
  "ask.field.default-changed": sent(
    record("crew: { type: integer, default: 1 }"),
    record("crew: { type: integer, default: 2 }"),
  ),
  "ask.style.changed": inside(
    { parameters: ["{ name: status, in: query, schema: { type: array, items: { type: string } } }"] },
    { parameters: ["{ name: status, in: query, explode: false, schema: { type: array, items: { type: string } } }"] },
  ),
  "ask.parameter.deprecated": inside({ parameters: [quay()] }, { parameters: [quay(", deprecated: true")] }),
  "standing.new": {
    ...inside({}, { parameters: [quay(required)] }),
    standing: ["quay"],
    along: ["ask.parameter.new-required"],
  },
  "ask.parameter.moved": inside({ parameters: [quay()] }, { parameters: [quay("", "quay", "header")] }),
  "ask.body.gone": inside(body(json()), {}),
  "ask.body.new": inside({}, body(json())),
  "ask.body.now-required": inside(body(json()), body(json(), required)),
  "ask.body.now-optional": inside(body(json(), required), body(json())),
  "ask.media.changed": inside(body(json()), body(`text/plain: { schema: ${text} }`)),
  "answer.status.changed": inside({ statuses: [status("200")] }, { statuses: [status("201")] }),
  "answer.status.new": inside(
    { statuses: [status("200")] },
    { statuses: [status("200"), status("202", json(record(`ticket: ${text}`)))] },
  ),
  "answer.status.gone": inside(
    { statuses: [status("200"), status("202", json(record(`ticket: ${text}`)))] },
    { statuses: [status("200")] },
  ),
  "answer.body.changed": inside({ statuses: [status("200")] }, { statuses: [bare("204")] }),
  "answer.form.changed": inside(
    { statuses: [status("200", json(record("")))] },
    { statuses: [status("200", "application/x-ndjson: { itemSchema: { type: object } }")] },
  ),
  "answer.media.gone": inside(
    { statuses: [status("200", `${json(record(""))}, text/csv: { schema: ${text} }`)] },
    { statuses: [status("200", json(record("")))] },
  ),
  "answer.stream.gone": inside(
    { statuses: [status("200", `${json(record(""))}, text/event-stream: { schema: ${text} }`)] },
    { statuses: [status("200", json(record("")))] },
  ),
  "failure.status.new": inside({}, { statuses: [fine, bare("423")] }),
  "failure.status.gone": inside({ statuses: [fine, bare("423")] }, {}),
  "answer.header.gone": inside(
    {
      statuses: [
        `"200": { description: "", headers: { Rate-Left: { schema: { type: integer } } }, content: { ${json()} } }`,
      ],
    },
    { statuses: [status("200")] },
  ),
  "answer.header.new": inside(
    { statuses: [status("200")] },
    {
      statuses: [
        `"200": { description: "", headers: { Rate-Left: { schema: { type: integer } } }, content: { ${json()} } }`,
      ],
    },
  ),
  "ask.field.gone": sent(record(`quay: ${text}, crew: { type: integer }`), record(`quay: ${text}`)),
  "ask.field.renamed": sent(record("crew: { type: integer }"), record("crewSize: { type: integer }")),
  "ask.field.new": sent(record(`quay: ${text}`), record(`quay: ${text}, pets: { type: integer }`)),
  "ask.field.new-required": sent(
    record(`quay: ${text}`),
    record(`quay: ${text}, insurance: { type: integer }`, ", required: [insurance]"),
  ),
  "ask.field.now-required": sent(record(`quay: ${text}`), record(`quay: ${text}`, ", required: [quay]")),
  "ask.field.now-optional": sent(record(`quay: ${text}`, ", required: [quay]"), record(`quay: ${text}`)),
  "answer.field.gone": answered(record(`quay: ${text}, note: ${text}`, ", required: [note]"), record(`quay: ${text}`)),
  "answer.field.renamed": answered(
    record(`quay: ${text}, draught: { type: number, description: Depth at low water. }`),
    record(`quay: ${text}, depth: { type: number, description: Depth at low water. }`),
  ),
  "answer.field.moved": {
    ...answered(record(`quay: ${text}`), record(`quay: ${text}, length: { type: integer }`)),
    along: ["answer.field.new"],
    isOfPlaces: true,
  },
  "answer.field.new": answered(record(`quay: ${text}`), record(`quay: ${text}, photos: { type: integer }`)),
  "answer.field.now-optional": answered(record(`quay: ${text}`, ", required: [quay]"), record(`quay: ${text}`)),
  "answer.field.now-always": answered(record(`quay: ${text}`), record(`quay: ${text}`, ", required: [quay]")),
  "deprecated.new": answered(record(`note: ${text}`), record("note: { type: string, deprecated: true }")),
  "ask.keys.forbidden": sent(
    record(`quay: ${text}`, `, additionalProperties: ${text}`),
    record(`quay: ${text}`, ", additionalProperties: false"),
  ),
  "answer.keys.gone": answered(record(`quay: ${text}`, `, additionalProperties: ${text}`), record(`quay: ${text}`)),
  "ask.one-of.now": schema(
    finding("input BerthBy { id: ID code: String }"),
    finding("input BerthBy @oneOf { id: ID code: String }"),
  ),
  "ask.one-of.gone": schema(
    finding("input BerthBy @oneOf { id: ID code: String }"),
    finding("input BerthBy { id: ID code: String }"),
  ),
  "ask.null.lost": sent(record('note: { type: [string, "null"] }'), record(`note: ${text}`)),
  "ask.null.gained": sent(record(`note: ${text}`), record('note: { type: [string, "null"] }')),
  "answer.null.gained": answered(record(`note: ${text}`), record('note: { type: [string, "null"] }')),
  "answer.null.lost": answered(record('note: { type: [string, "null"] }'), record(`note: ${text}`)),
  "ask.type.changed": sent(record("crew: { type: integer }"), record(`crew: ${text}`)),
  "answer.type.changed": answered(record("length: { type: number }"), record(`length: ${text}`)),
  "ask.format.changed": sent(
    record("arrival: { type: string, format: date }"),
    record("arrival: { type: string, format: date-time }"),
  ),
  "answer.format.changed": answered(
    record("arrival: { type: string, format: date }"),
    record("arrival: { type: string, format: date-time }"),
  ),
  "ask.limit.tightened": sent(
    record("crew: { type: integer, maximum: 40 }"),
    record("crew: { type: integer, maximum: 12 }"),
  ),
  "ask.limit.loosened": sent(
    record("crew: { type: integer, maximum: 12 }"),
    record("crew: { type: integer, maximum: 40 }"),
  ),
  "answer.limit.widened": answered(
    record("level: { type: number, maximum: 9 }"),
    record("level: { type: number, maximum: 12 }"),
  ),
  "answer.limit.narrowed": answered(
    record("level: { type: number, maximum: 9 }"),
    record("level: { type: number, maximum: 8 }"),
  ),
  "ask.choice.gone": sent("{ type: string, enum: [free, closed] }", "{ type: string, enum: [free] }"),
  "ask.choice.new": sent("{ type: string, enum: [free] }", "{ type: string, enum: [free, dredging] }"),
  "answer.choice.gone": answered("{ type: string, enum: [free, reserved] }", "{ type: string, enum: [free] }"),
  "answer.choice.new": answered("{ type: string, enum: [free] }", "{ type: string, enum: [free, dredging] }"),
  "choice.deprecated": schema(
    "type Query { status: Status }\nenum Status { UNDER_WAY LATE }\n",
    'type Query { status: Status }\nenum Status { UNDER_WAY LATE @deprecated(reason: "Use eta.") }\n',
  ),
  "ask.member.gone": sent(
    "{ oneOf: [{ type: string }, { type: integer }, { type: boolean }] }",
    "{ oneOf: [{ type: string }, { type: integer }] }",
  ),
  "ask.member.new": sent(
    "{ oneOf: [{ type: string }, { type: integer }] }",
    "{ oneOf: [{ type: string }, { type: integer }, { type: boolean }] }",
  ),
  "answer.member.gone": answered(
    "{ oneOf: [{ type: string }, { type: integer }, { type: boolean }] }",
    "{ oneOf: [{ type: string }, { type: integer }] }",
  ),
  "answer.member.new": answered(
    "{ oneOf: [{ type: string }, { type: integer }] }",
    "{ oneOf: [{ type: string }, { type: integer }, { type: boolean }] }",
  ),
  "type.gone": schema(
    `${vessels}type Tug { power: Int }\ntype WorkBoat implements Vessel { name: String }\n`,
    `${vessels}type Tug { power: Int }\n`,
  ),
  "type.renamed": schema(
    "type Query { boat: WorkBoat }\ntype WorkBoat { name: String lift: Int }\n",
    "type Query { boat: Workboat }\ntype Workboat { name: String lift: Int }\n",
  ),
  "type.kind.changed": schema(
    "type Query { tide: Float }\ninterface Vessel { name: String }\n",
    "type Query { tide: Float }\ntype Vessel { name: String }\n",
  ),
  "type.name.gone": {
    ...answered(
      '{ type: object, properties: { size: { $ref: "#/components/schemas/Size" } } }\n    Size: { type: object, properties: { x: { type: number } } }',
      "{ type: object, properties: { size: { type: object, properties: { x: { type: number } } } } }",
    ),
  },
  "type.other": {
    ...answered(
      '{ type: object, properties: { size: { $ref: "#/components/schemas/Size" }, next: { $ref: "#/components/schemas/Size" } } }\n    Size: { type: object, properties: { x: { type: number } } }',
      '{ type: object, properties: { size: { type: object, properties: { x: { type: number } } }, next: { $ref: "#/components/schemas/Size" } } }\n    Size: { type: object, properties: { x: { type: number } } }',
    ),
    isOfNames: true,
  },
  "type.name.changed": answered(record(`quay: ${text}`), record(`quay: ${text}`), {
    name: "Berth",
    afterName: "Mooring",
  }),
  "type.interface.dropped": schema(
    `${vessels}type Tug implements Vessel { name: String }\n`,
    `${vessels}type Tug { name: String }\n`,
  ),
  "type.interface.gained": schema(
    `${vessels}type Tug { name: String }\n`,
    `${vessels}type Tug implements Vessel { name: String }\n`,
  ),
  "directive.gone": schema(
    "directive @lookback(days: Int) on FIELD\ntype Query { tide: Float }\n",
    "type Query { tide: Float }\n",
  ),
  "webhook.gone": { protocol: "rest", before: hooked(freed), after: hooked("") },
  "webhook.new": { protocol: "rest", before: hooked(""), after: hooked(freed) },
};
