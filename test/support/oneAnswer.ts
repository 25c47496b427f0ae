/** Returns a contract of one call, whose response is a berth with the given fields, all of them required. */
export function oneAnswer(fields: object, types: object = {}): string {
  const berth = { type: "object", required: Object.keys(fields), properties: fields };
  return JSON.stringify({
    openapi: "3.1.0",
    info: { title: "Berths", version: "1" },
    paths: {
      "/berth": {
        get: {
          operationId: "getBerth",
          responses: {
            200: {
              description: "",
              content: { "application/json": { schema: { $ref: "#/components/schemas/Berth" } } },
            },
          },
        },
      },
    },
    components: { schemas: { Berth: berth, ...types } },
  });
}
