import type { Json } from "../test/proof/random/makeSchema.js";

const named = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });
const json = (schema: unknown): Json => ({ content: { "application/json": { schema } } });
const answered = (schema: unknown, more: Json = {}): Json => ({ description: "Done.", ...json(schema), ...more });

/**
 * Returns a made-up contract with features that the demo's lacks: tuples, maps, headers, forms, closed records, every
 * kind of union.
 */
export function chandlery(): Json {
  return {
    openapi: "3.1.0",
    info: { title: "Ostrel Chandlery", version: "1.0.0", description: "Goods for boats." },
    servers: [{ url: "https://chandlery.ostrel.example/v1" }],
    security: [{ token: [] }],
    tags: [{ name: "goods" }],
    paths: {
      "/goods": {
        get: {
          operationId: "listGoods",
          tags: ["goods"],
          parameters: [
            {
              name: "sizes",
              in: "query",
              schema: { type: "array", items: { type: "integer", minimum: 1, maximum: 90 } },
            },
            { name: "sort", in: "query", schema: { type: "string", enum: ["name", "price", "weight"] } },
            {
              name: "limit",
              in: "query",
              schema: { type: "integer", format: "int32", minimum: 1, maximum: 50, default: 10 },
            },
            { name: "Trace-Id", in: "header", schema: { type: "string", maxLength: 20 } },
            {
              name: "filter",
              in: "query",
              style: "deepObject",
              explode: true,
              schema: { type: "object", properties: { brand: { type: "string" }, heavy: { type: "boolean" } } },
            },
          ],
          responses: {
            200: answered(
              { type: "array", items: named("Good") },
              {
                headers: {
                  "Rate-Left": { schema: { type: "integer" } },
                  "Fresh-Until": { schema: { type: "string" } },
                },
              },
            ),
            429: answered(named("Trouble")),
          },
        },
        post: {
          operationId: "addGood",
          requestBody: { required: true, ...json(named("NewGood")) },
          responses: { 201: answered(named("Good")), 422: answered(named("Trouble")) },
        },
      },
      "/goods/{goodId}": {
        parameters: [{ name: "goodId", in: "path", required: true, schema: { type: "integer", format: "int64" } }],
        get: {
          operationId: "getGood",
          responses: { 200: answered(named("Good")), 404: answered(named("Trouble")) },
        },
        put: {
          operationId: "changeGood",
          deprecated: false,
          requestBody: { ...json(named("NewGood")) },
          responses: { 200: answered(named("Good")), 409: answered(named("Trouble")) },
        },
        delete: { operationId: "removeGood", responses: { 204: { description: "Gone." } } },
      },
      "/orders": {
        post: {
          operationId: "placeOrder",
          security: [],
          requestBody: {
            required: true,
            ...json({
              type: "object",
              required: ["lines", "payment"],
              additionalProperties: false,
              properties: {
                lines: {
                  type: "array",
                  minItems: 1,
                  maxItems: 8,
                  items: {
                    type: "object",
                    required: ["good", "count"],
                    properties: {
                      good: { type: "integer" },
                      count: { type: "integer", minimum: 1 },
                      wish: { type: ["string", "null"] },
                    },
                  },
                },
                payment: named("Payment"),
                labels: { type: "object", additionalProperties: { type: "string" } },
                at: { type: "string", format: "date-time" },
                area: {
                  type: "array",
                  prefixItems: [{ type: "number" }, { type: "string" }],
                  items: false,
                  minItems: 2,
                },
              },
            }),
          },
          responses: {
            201: answered({
              type: "object",
              required: ["id", "state", "total"],
              properties: {
                id: { type: "string", format: "uuid" },
                state: { type: "string", enum: ["new", "packed", "sent"] },
                total: { type: "number" },
                position: {
                  type: "array",
                  prefixItems: [{ type: "number" }, { type: "number" }],
                  items: false,
                  minItems: 2,
                },
                expected: { type: "string", format: "date" },
                marks: { type: "object", additionalProperties: { type: "string" } },
              },
            }),
            default: answered(named("Trouble")),
          },
        },
      },
      "/goods/{goodId}/restock": {
        parameters: [{ name: "goodId", in: "path", required: true, schema: { type: "integer", format: "int64" } }],
        post: { operationId: "restock", responses: { 204: { description: "Ordered." } } },
      },
      "/reports": {
        get: {
          operationId: "report",
          parameters: [{ name: "day", in: "query", required: true, schema: { type: "string", format: "date" } }],
          responses: {
            200: answered({ type: "object", additionalProperties: named("Figure") }),
            404: { description: "None." },
          },
        },
      },
      "/photos": {
        post: {
          operationId: "addPhoto",
          requestBody: {
            required: true,
            content: {
              "multipart/form-data": {
                schema: {
                  type: "object",
                  required: ["file"],
                  properties: { file: { type: "string", format: "binary" }, title: { type: "string" } },
                },
              },
            },
          },
          responses: {
            200: answered({
              type: "object",
              required: ["url"],
              properties: { url: { type: "string" }, width: { type: ["integer", "null"] } },
            }),
          },
        },
      },
      "/catalogue": {
        get: {
          operationId: "catalogue",
          responses: {
            200: {
              description: "All of it.",
              content: {
                "application/json": { schema: { type: "array", items: named("Figure") } },
                "text/csv": { schema: { type: "string" } },
                "application/x-ndjson": { itemSchema: named("Figure") },
              },
            },
          },
        },
        put: {
          operationId: "replaceCatalogue",
          requestBody: {
            required: true,
            content: {
              "application/json": { schema: { type: "array", items: named("Figure") } },
              "text/csv": { schema: { type: "string" } },
            },
          },
          responses: { 204: { description: "Replaced." } },
        },
      },
      "/log": {
        get: {
          operationId: "readLog",
          servers: [{ url: "https://logs.ostrel.example/v1" }],
          responses: {
            200: {
              description: "Lines.",
              content: { "application/x-ndjson": { schema: { type: "string" }, itemSchema: named("Figure") } },
            },
          },
        },
      },
    },
    webhooks: {
      soldOut: { post: { requestBody: { ...json(named("Figure")) }, responses: { 200: { description: "Noted." } } } },
    },
    components: {
      securitySchemes: {
        token: { type: "http", scheme: "bearer" },
        key: { type: "apiKey", in: "header", name: "Chandlery-Key" },
      },
      schemas: {
        Good: {
          type: "object",
          required: ["id", "name", "price", "kind", "tags", "part"],
          properties: {
            id: { type: "integer", format: "int64", readOnly: true },
            name: { type: "string", minLength: 1, maxLength: 40 },
            price: { type: "number", minimum: 0, maximum: 5000 },
            kind: named("Kind"),
            weight: { type: ["number", "null"] },
            tags: { type: "array", items: { type: "string" } },
            part: named("Part"),
            sizes: { type: "array", items: { type: ["integer", "null"] } },
            maker: named("Maker"),
            code: { oneOf: [{ type: "string" }, { type: "integer" }] },
            since: { type: "string", format: "date-time" },
            stock: { type: "integer", minimum: 0, maximum: 900 },
            note: { type: "string", deprecated: true },
          },
        },
        NewGood: {
          type: "object",
          required: ["name", "price", "kind"],
          properties: {
            name: { type: "string", minLength: 1, maxLength: 40 },
            price: { type: "number", minimum: 0, maximum: 5000 },
            kind: named("Kind"),
            weight: { type: ["number", "null"] },
            part: named("Part"),
            maker: named("Maker"),
            code: { oneOf: [{ type: "string" }, { type: "integer" }] },
            since: { type: "string", format: "date" },
            stock: { type: "integer", minimum: 0, maximum: 900 },
            gift: { type: "boolean", default: false },
          },
        },
        Kind: { type: "string", enum: ["rope", "paint", "anchor", "lamp"] },
        Maker: {
          type: "object",
          required: ["name"],
          properties: { name: { type: "string" }, country: { type: "string" }, parent: named("Maker") },
        },
        Part: {
          oneOf: [named("RopePart"), named("PaintPart")],
          discriminator: {
            propertyName: "form",
            mapping: { rope: "#/components/schemas/RopePart", paint: "#/components/schemas/PaintPart" },
          },
        },
        RopePart: {
          type: "object",
          required: ["form", "length"],
          properties: { form: { const: "rope" }, length: { type: "number" }, braided: { type: "boolean" } },
        },
        PaintPart: {
          type: "object",
          required: ["form", "colour"],
          properties: { form: { const: "paint" }, colour: { type: "string", enum: ["red", "white", "blue"] } },
        },
        Payment: {
          anyOf: [
            { type: "object", required: ["card"], properties: { card: { type: "string" } } },
            {
              type: "object",
              required: ["account"],
              properties: { account: { type: "string" }, bank: { type: "string" } },
            },
          ],
        },
        Figure: {
          type: "object",
          required: ["sold"],
          properties: { sold: { type: "integer" }, best: { type: ["string", "null"] }, share: { type: "number" } },
        },
        Trouble: {
          type: "object",
          required: ["title"],
          properties: { title: { type: "string" }, detail: { type: "string" }, code: { type: "integer" } },
        },
      },
    },
  };
}
