/** One contract with the ugliest legal parts of real ones. */
const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const json = (schema: unknown) => ({ "application/json": { schema } });
const ok = (schema: unknown) => ({ "200": { description: "fine", content: json(schema) } });
const nasty =
  "Closes */ the comment, opens /* another, a `tick`, ${code}, \\ and @internal.\r\nSecond line\u2028third \u202e reversed.";

const schemas: Record<string, unknown> = {
  Error: {
    type: "object",
    description: nasty,
    properties: { message: { type: "string", description: nasty, default: nasty } },
  },
  Promise: { type: "object", properties: { then: { type: "string" } } },
  Record: { type: "object", properties: { a: { type: "string" } } },
  "kebab-name": { type: "object", properties: { a: { type: "string" } } },
  KebabName: { type: "object", properties: { b: { type: "string" } } },
  "pkg.deep.Name": { type: "string" },
  "other.deep.Name": { type: "integer" },
  "x-private": { type: "boolean" },
  "9lives": { type: "object", properties: { left: { type: "integer" } } },
  Größe: { type: "object", properties: { höhe: { type: "number" }, "große Breite": { type: "number" } } },
  名前: { type: "string" },
  ReactionCounts: {
    type: "object",
    required: ["+1", "-1"],
    properties: {
      "+1": { type: "integer" },
      "-1": { type: "integer" },
      "@timestamp": { type: "string" },
      "x5t#S256": { type: "string" },
      "": { type: "string" },
      __proto__x: { type: "string" },
    },
  },
  Reactions: { type: "string", enum: ["+1", "-1", "", "a b", "*/", "${x}", "`", '"', "\\", "\n"] },
  Words: {
    type: "object",
    properties: Object.fromEntries(
      "class default private length constructor toString new await"
        .split(" ")
        .map((word) => [word, { type: "string" }]),
    ),
  },
  Tree: {
    type: "object",
    properties: {
      kids: { type: "array", items: ref("Tree") },
      index: { type: "object", additionalProperties: ref("Tree") },
    },
  },
  MapTree: { type: "object", additionalProperties: ref("MapTree") },
  MapA: { type: "object", additionalProperties: ref("MapB") },
  MapB: { type: "object", additionalProperties: ref("MapA") },
  Nested: { type: "array", items: { oneOf: [{ type: "string" }, ref("Nested")] } },
  SelfUnion: { oneOf: [{ type: "string" }, { type: "array", items: ref("SelfUnion") }, ref("SelfUnion")] },
  Anything: {},
  MaybeAnything: { oneOf: [ref("Anything"), { type: "string" }] },
  NullableAnything: {
    type: "object",
    properties: { a: { allOf: [ref("Anything")], nullable: true }, b: { anyOf: [ref("Anything"), { type: "null" }] } },
  },
  Redundant: {
    anyOf: [{ type: "string" }, { const: "a" }, { type: "string", format: "date" }, { enum: ["b", "c"] }, ref("名前")],
  },
  RedundantLists: {
    anyOf: [{ type: "array", items: { type: "string" } }, { type: "array", items: ref("名前") }, ref("ListAlias")],
  },
  ListAlias: { type: "array", items: { type: "string" } },
  Truths: { anyOf: [{ type: "boolean" }, { const: true }] },
  Never: false,
  UsesNever: {
    type: "object",
    properties: { impossible: ref("Never"), maybe: { anyOf: [{ type: "string" }, ref("Never")] } },
  },
  Empty: { type: "object", additionalProperties: false },
  Open: { type: "object" },
  Mixed: {
    type: "object",
    required: ["a"],
    properties: { a: { type: "string" }, b: { type: "integer" }, c: ref("Tree"), d: { type: ["string", "null"] } },
    additionalProperties: { type: "boolean" },
  },
  MixedAny: { type: "object", properties: { a: { type: "string" } }, additionalProperties: true },
  Pair: { type: "array", prefixItems: [{ type: "string" }, { type: ["integer", "null"] }], items: { type: "boolean" } },
  Cat: { type: "object", required: ["kind"], properties: { kind: { type: "string" }, purrs: { type: "boolean" } } },
  Dog: { type: "object", required: ["kind"], properties: { kind: { const: "dog" }, barks: { type: "boolean" } } },
  Fox: { type: "object", properties: { says: { type: "string" } } },
  Pet: {
    oneOf: [ref("Cat"), ref("Dog"), ref("Fox")],
    discriminator: {
      propertyName: "kind",
      mapping: {
        cat: "#/components/schemas/Cat",
        lion: "#/components/schemas/Cat",
        dog: "#/components/schemas/Dog",
        'fo"x': "#/components/schemas/Fox",
      },
    },
  },
  Account: {
    type: "object",
    required: ["id", "password"],
    properties: {
      id: { type: "string", readOnly: true },
      password: { type: "string", writeOnly: true },
      owner: ref("Owner"),
    },
  },
  Owner: { type: "object", properties: { account: ref("Account"), nick: { type: "string" } } },
  OldThing: {
    type: "object",
    deprecated: true,
    properties: { gone: { type: "string", deprecated: true, description: "*/ gone" } },
  },
  UsesOld: {
    type: "object",
    properties: {
      old: ref("OldThing"),
      inline: {
        type: "object",
        properties: {
          deep: { type: "array", items: { type: "object", properties: { deeper: { enum: ["x", "y"] } } } },
        },
      },
    },
  },
  ListThingsArgs: { type: "string" },
  ApiConnection: { type: "object", properties: { taken: { type: "boolean" } } },
  wire: { type: "object", properties: { taken: { type: "boolean" } } },
  Numbers: { enum: [1, 2.5, -3] },
  NullOnly: { type: "null" },
  NullableChoice: { type: ["string", "null"], enum: ["a", "b", null] },
  PartAlias: { oneOf: [{ enum: ["a", "b"] }, { type: "integer" }] },
  Overlap: { oneOf: [ref("PartAlias"), { type: "string" }, { const: 5 }] },
  NullableAlias: { oneOf: [{ type: "string" }, { type: "null" }, { type: "object" }] },
  NullTwice: {
    type: "object",
    properties: { a: { anyOf: [ref("NullableAlias"), { type: ["integer", "null"] }], nullable: true } },
  },
  CircleOne: { oneOf: [ref("CircleTwo"), { type: "string" }] },
  CircleTwo: { oneOf: [ref("CircleOne"), { type: "boolean" }] },
  UsesCircles: { anyOf: [ref("CircleOne"), ref("CircleTwo"), { const: true }] },
  OnlyAnswered: {
    type: "object",
    properties: { a: { type: "string", readOnly: true } },
    additionalProperties: { type: "string" },
  },
};

const parameter = (name: string, where: string, schema: unknown, more: object = {}) => ({
  name,
  in: where,
  required: where === "path",
  schema,
  ...more,
});

const paths: Record<string, unknown> = {
  "/things": {
    get: {
      operationId: "list/things-for.group",
      parameters: [
        parameter("filter[a]", "query", { type: "string" }),
        parameter("filter.a", "query", { type: "string" }),
        parameter("body", "query", { type: "string" }),
        parameter("X-Request-Id", "header", { type: "string" }),
        parameter("deep", "query", { type: "object", properties: { a: { type: "string" } } }, { style: "deepObject" }),
        parameter("piped", "query", { type: "array", items: { type: "string" } }, { style: "pipeDelimited" }),
        parameter("asJson", "query", undefined, { content: json(ref("Tree")) }),
        parameter("old`one", "query", { type: "string" }, { deprecated: true, description: nasty }),
        parameter("either", "query", { oneOf: [{ type: "string" }, { type: "array", items: { type: "string" } }] }),
      ],
      responses: {
        ...ok({ type: "array", items: ref("Tree") }),
        404: { description: nasty, content: json(ref("Error")) },
        "5XX": { description: "", content: json({}) },
        default: { description: "" },
      },
    },
    post: {
      operationId: "delete",
      tags: ["con"],
      requestBody: { content: json(ref("Account")) },
      responses: { 201: { description: "", content: json(ref("Account")) }, 202: { description: "" } },
    },
    delete: {
      operationId: "Delete",
      requestBody: { content: { "text/plain": {} } },
      responses: { 204: { description: "" } },
    },
    put: {
      operationId: "import",
      requestBody: {
        required: true,
        content: {
          "multipart/form-data": {
            schema: { type: "object", properties: { file: { type: "string", format: "binary" } } },
          },
        },
      },
      responses: { 200: { description: "", content: { "application/pdf": {} } } },
    },
    patch: {
      operationId: "list things args",
      deprecated: true,
      description: nasty,
      requestBody: { content: { "application/x-www-form-urlencoded": { schema: ref("Mixed") } } },
      responses: ok({ type: ["string", "null"] }),
    },
  },
  "/compare/{base}...{head}": {
    get: {
      parameters: [
        parameter("base", "path", { type: "string" }),
        parameter("head", "path", { type: "string" }, { style: "label", explode: true }),
      ],
      responses: ok({}),
    },
  },
  "/x/`${injected}`/{id}": {
    get: {
      parameters: [parameter("id", "path", { type: "integer" }), parameter("id", "query", { type: "integer" })],
      responses: { 302: { description: "" } },
    },
  },
  "/x/{id}/": {
    get: { parameters: [parameter("id", "path", { type: "string" })], responses: { 401: { description: "" } } },
  },
  "/matrix/{m}": {
    get: {
      operationId: "0start",
      deprecated: true,
      parameters: [parameter("m", "path", { type: "array", items: { type: "string" } }, { style: "matrix" })],
      responses: { default: { description: "", content: json(ref("Pet")) } },
    },
  },
  "/text": {
    post: {
      parameters: [parameter("old", "query", { type: "string" }, { deprecated: true })],
      requestBody: { content: { "text/plain": {} } },
      responses: ok({}),
    },
  },
  "/null-text": {
    post: {
      requestBody: { content: { "text/plain": { schema: ref("NullableChoice") } } },
      responses: { 200: { description: "", content: { "text/plain": { schema: ref("NullableChoice") } } } },
    },
  },
  "/odd-bodies": {
    post: {
      operationId: "isInlineFailure",
      requestBody: { content: { "text/plain": { schema: { type: ["integer", "null"] } } } },
      responses: { 200: { description: "", content: { "text/plain": { schema: ref("Tree") } } } },
    },
    put: { requestBody: { required: true, content: { "application/pdf": { schema: ref("Tree") } } }, responses: {} },
    patch: {
      requestBody: { required: true, content: { "multipart/form-data": { schema: { type: "boolean" } } } },
      responses: {},
    },
    delete: { requestBody: { content: { "application/json": { schema: ref("OnlyAnswered") } } }, responses: {} },
  },
  "/pets": {
    post: {
      operationId: "Error",
      security: [{ "odd name": [] }, {}],
      requestBody: { required: true, content: json(ref("Pet")) },
      responses: ok(ref("Pet")),
    },
  },
  "/inline": {
    get: {
      operationId: "inline",
      responses: {
        200: {
          description: "",
          content: json({
            type: "object",
            properties: { list: { type: "array", items: { type: "object", properties: { a: { type: "string" } } } } },
          }),
        },
        201: {
          description: "",
          content: json({ type: "array", items: { type: "object", properties: { b: { type: "string" } } } }),
        },
      },
    },
  },
};
for (const name of Object.keys(schemas)) {
  paths[`/all/${Object.keys(paths).length.toString()}`] = { get: { responses: ok(ref(encodeURIComponent(name))) } };
}

export const uglyContract = {
  openapi: "3.1.0",
  info: { title: `Ugly ${nasty}`, version: nasty },
  servers: [{ url: "/relative" }],
  paths,
  components: {
    schemas,
    securitySchemes: {
      "odd name": { type: "apiKey", in: "header", name: "X-`Key", description: nasty },
      unused: { type: "http", scheme: "bearer" },
    },
  },
};
