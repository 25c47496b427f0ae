/**
 * Returns a minimal OpenAPI document with the given schemas and operations. Each operation responds with its schema.
 */
export function contractWith(
  schemas: Record<string, unknown>,
  paths: Record<string, unknown> = {},
  dialect = "3.1.0",
): Record<string, unknown> {
  const answered = Object.fromEntries(
    Object.keys(schemas).map((name) => [
      `/s/${encodeURIComponent(name).replaceAll(".", "-")}`,
      {
        get: {
          operationId: `get ${name}`,
          responses: okay({ $ref: `#/components/schemas/${name.replaceAll("~", "~0").replaceAll("/", "~1")}` }),
        },
      },
    ]),
  );
  return {
    openapi: dialect,
    info: { title: "Small", version: "1" },
    paths: { ...answered, ...paths },
    components: { schemas },
  };
}

export function okay(schema: unknown): Record<string, unknown> {
  return { "200": { description: "ok", content: { "application/json": { schema } } } };
}
