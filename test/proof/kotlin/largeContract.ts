const text = { type: "string" };

function many<T>(count: number, make: (at: number) => T): T[] {
  return Array.from({ length: count }, (_, at) => make(at));
}

function fields(count: number): Readonly<Record<string, unknown>> {
  const choice = { type: "string", enum: ["a", "b"] };
  const types = [text, { type: "integer" }, { type: "number" }, { type: "boolean" }, choice, { const: "c" }];
  return Object.fromEntries(many(count, (at) => [`f${String(at)}`, types[at % types.length]]));
}

/** Returns a contract that needs more of everything than the JVM has space for in one place. */
export function largeContract(): Readonly<Record<string, unknown>> {
  const record = (count: number, required: number): object => ({
    type: "object",
    properties: fields(count),
    required: many(required, (at) => `f${String(at)}`),
  });
  const schemas: Record<string, unknown> = {
    AlmostTooMany: record(160, 160),
    // More slots than fields, because required integers and others take two.
    TooManySlots: record(230, 230),
    JustFits: { type: "object", properties: Object.fromEntries(many(239, (at) => [`f${String(at)}`, text])) },
    TooMany: record(260, 200),
    FarTooMany: record(600, 300),
    LongChoice: { type: "string", enum: many(1500, (at) => `value ${String(at)}`) },
    LongerChoice: {
      type: "string",
      enum: many(Number(process.env["LONG_CHOICE"] ?? 2500), (at) => `value ${String(at)}`),
    },
    Numbers: { type: "integer", enum: many(2000, (at) => at) },
    LongText: { type: "object", properties: { a: { const: "x".repeat(100_000) } }, required: ["a"] },
    Tuple: { type: "array", prefixItems: many(40, (at) => (at % 2 === 0 ? text : { type: "integer" })), items: text },
    Nested: { type: "array", items: { $ref: "#/components/schemas/Nested" } },
    NestedMap: { type: "object", additionalProperties: { $ref: "#/components/schemas/NestedMap" } },
    First: { type: "array", items: { $ref: "#/components/schemas/Second" } },
    Second: { type: "object", additionalProperties: { $ref: "#/components/schemas/First" } },
    ManyMembers: {
      oneOf: many(120, (at) => ({ $ref: `#/components/schemas/Member${String(at)}` })),
      discriminator: { propertyName: "kind" },
    },
    ManyKinds: { anyOf: many(120, (at) => ({ $ref: `#/components/schemas/Member${String(at)}` })) },
  };
  for (let at = 0; at < 120; at++)
    schemas[`Member${String(at)}`] = {
      type: "object",
      required: ["kind", `own${String(at)}`],
      properties: { kind: text, [`own${String(at)}`]: text },
    };
  const names = Object.keys(schemas).filter((name) => !name.startsWith("Member"));
  const paths = Object.fromEntries(
    names.map((name): [string, unknown] => {
      const content = { "application/json": { schema: { $ref: `#/components/schemas/${name}` } } };
      return [
        `/${name}`,
        {
          put: {
            operationId: `put${name}`,
            requestBody: { content },
            responses: { 200: { description: "x", content } },
          },
        },
      ];
    }),
  );
  const parameters = many(300, (at) => ({
    name: `p${String(at)}`,
    in: "query",
    required: at % 3 === 0,
    schema: [{ type: "number" }, text, { type: "string", enum: ["a", "b"] }][at % 3],
  }));
  return {
    openapi: "3.1.0",
    info: { title: "Large", version: "1" },
    paths: {
      ...paths,
      "/parameters": {
        post: {
          operationId: "withParameters",
          requestBody: {
            required: true,
            content: {
              "application/json": { schema: { $ref: "#/components/schemas/TooMany" } },
              "text/csv": { schema: text },
            },
          },
          parameters: [...parameters, { name: "cursor", in: "query", schema: text }],
          responses: {
            200: {
              description: "x",
              content: {
                "application/json": {
                  schema: {
                    type: "object",
                    required: ["items"],
                    properties: { items: { type: "array", items: text }, nextCursor: text },
                  },
                },
              },
            },
          },
        },
      },
    },
    components: { schemas },
  };
}
